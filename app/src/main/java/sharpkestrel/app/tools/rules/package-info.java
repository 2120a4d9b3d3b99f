/** Rules written as a list of sentences, tried as they are written. */
package sharpkestrel.app.tools.rules;
