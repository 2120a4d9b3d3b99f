/** What the window shows, without any node: results, looks, tasks, undo, the winnow in hand. */
package sharpkestrel.app.model;
