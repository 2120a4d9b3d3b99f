package sharpkestrel.raster;

import java.util.ArrayList;
import java.util.List;

/**
 * What is to be known of how a raster was read, in sentences: numbers that lost digits, tables of colours not used,
 * images left out.
 */
public record Remarks(List<String> sentences) {

  public Remarks {
    sentences = List.copyOf(sentences);
  }

  /** Attachments with another sentence. */
  public static Attachments add(Attachments attachments, String sentence) {
    List<String> all = new ArrayList<>(of(attachments));
    all.add(sentence);
    return attachments.with(Remarks.class, new Remarks(all));
  }

  public static List<String> of(Attachments attachments) {
    return attachments.get(Remarks.class).map(Remarks::sentences).orElse(List.of());
  }
}
