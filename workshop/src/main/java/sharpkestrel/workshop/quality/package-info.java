/** Reports of how good each stage is, on held-out seeds of the simulated survey. */
package sharpkestrel.workshop.quality;
