/** Groups that form of themselves, without samples. */
package sharpkestrel.extract.cluster;
