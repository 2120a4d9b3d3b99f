/** How work runs beside the interface: four lanes, each with its own threads. Knows nothing of what the work is about. */
package sharpkestrel.app.work;
