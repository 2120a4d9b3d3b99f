/** Ways to learn beside each other. */
package sharpkestrel.app.tools.learners;
