package sharpkestrel.io;

import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;

/** XML of files, parsed without document types or outside entities. */
final class Xml {

  private Xml() {}

  /**
   * @throws IOException where the text is no XML
   */
  static Element parse(String text) throws IOException {
    try {
      DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
      factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
      factory.setExpandEntityReferences(false);
      DocumentBuilder builder = factory.newDocumentBuilder();
      builder.setErrorHandler(null);
      return builder.parse(new InputSource(new StringReader(text))).getDocumentElement();
    } catch (SAXException notXml) {
      throw new IOException("it is not XML (" + notXml.getMessage() + ")", notXml);
    } catch (ParserConfigurationException impossible) {
      throw new IllegalStateException(impossible);
    }
  }

  static List<Element> children(Element parent, String name) {
    List<Element> found = new ArrayList<>();
    for (Node child = parent.getFirstChild(); child != null; child = child.getNextSibling()) {
      if (child instanceof Element element && element.getTagName().equals(name)) {
        found.add(element);
      }
    }
    return found;
  }

  /** The text of the first child with a name. */
  static Optional<String> text(Element parent, String name) {
    List<Element> found = children(parent, name);
    return found.isEmpty() ? Optional.empty() : Optional.of(found.getFirst().getTextContent());
  }
}
