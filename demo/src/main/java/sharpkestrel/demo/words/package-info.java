/** The words by which parts of a world are chosen. */
package sharpkestrel.demo.words;
