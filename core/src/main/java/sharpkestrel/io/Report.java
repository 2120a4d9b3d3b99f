package sharpkestrel.io;

import com.fasterxml.jackson.databind.node.ObjectNode;

/** A result that is figures to be read, not a picture, objects or a file. */
public interface Report {

  String toText();

  ObjectNode toJson();
}
