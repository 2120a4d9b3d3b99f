/** Repeatable chance: what the made-up world is made of. */
package sharpkestrel.demo.noise;
