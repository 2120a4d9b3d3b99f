/** The project on disk: what there is and how it was made, what is shown, and what a person did by hand. */
package sharpkestrel.app.project;
