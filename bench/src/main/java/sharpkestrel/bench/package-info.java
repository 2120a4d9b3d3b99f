/** Speed of kernels, by JMH. */
package sharpkestrel.bench;
