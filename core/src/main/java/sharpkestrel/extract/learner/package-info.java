/** Learners: from a table of features with classes to probabilities of classes; one interface, several methods. */
package sharpkestrel.extract.learner;
