/** Means of those who work on Sharp Kestrel itself: its figures, its pictures, damaged files. None of it ships with the product. */
package sharpkestrel.workshop;
