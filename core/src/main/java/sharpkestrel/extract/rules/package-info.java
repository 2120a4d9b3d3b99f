/** Classes by rules: sentences of CQL2 in order, over features and over what lies about an object. */
package sharpkestrel.extract.rules;
