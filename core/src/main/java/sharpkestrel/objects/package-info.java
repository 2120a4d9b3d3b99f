/** Object sets: labels, what each object measures, and their files. */
package sharpkestrel.objects;
