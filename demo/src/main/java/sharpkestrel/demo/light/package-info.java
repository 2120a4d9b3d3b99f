/** Surfaces, sun, air and water: what becomes of light on its way to the sensor. */
package sharpkestrel.demo.light;
