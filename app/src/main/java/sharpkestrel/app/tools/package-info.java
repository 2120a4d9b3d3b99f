/** What a tool is, and what it works on. The tools themselves lie in packages of their own below and do not know each other. */
package sharpkestrel.app.tools;
