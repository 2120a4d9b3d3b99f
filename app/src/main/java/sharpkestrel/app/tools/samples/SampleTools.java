package sharpkestrel.app.tools.samples;

import java.util.List;
import java.util.function.Supplier;
import sharpkestrel.app.samples.SampleBook;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;

/** The tools that label, and look over what was labelled. */
public final class SampleTools {

  private SampleTools() {}

  public static List<Tool> of(Desk desk, Supplier<SampleBook> book) {
    return List.of(
        new SamplesTool(desk, book), new PixelsTool(desk, book), new WeighTool(desk, book));
  }
}
