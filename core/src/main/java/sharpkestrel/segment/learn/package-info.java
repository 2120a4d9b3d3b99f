/** What is learned of pairs of regions: the network, how it is trained, and its file. */
package sharpkestrel.segment.learn;
