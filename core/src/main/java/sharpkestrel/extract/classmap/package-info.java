/** Maps of classes: every pixel has one of a few, each class being one object; how they are joined, cleaned and coloured. */
package sharpkestrel.extract.classmap;
