/** What ties steps together: their catalogue, run sheets, the runner, projects and provenance. */
package sharpkestrel.flow;
