/** The simulated world of the demo survey, Fenwrack Sound: terrain, things, sensor, deliveries and exact truth. */
package sharpkestrel.demo;
