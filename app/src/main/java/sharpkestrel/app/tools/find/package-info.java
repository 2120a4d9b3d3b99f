/** Things of every size: all nodes scored once, the least score slid over what is found. */
package sharpkestrel.app.tools.find;
