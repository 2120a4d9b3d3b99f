/** What is really there, and where each product of a scene shows it. */
package sharpkestrel.demo.truth;
