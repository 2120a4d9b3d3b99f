/** For developers: readers tried on files that were damaged on purpose. */
package sharpkestrel.workshop.fuzz;
