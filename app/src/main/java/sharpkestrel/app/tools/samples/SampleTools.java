package sharpkestrel.app.tools.samples;

import java.util.List;
import java.util.function.Supplier;
import sharpkestrel.app.tools.Desk;
import sharpkestrel.app.tools.Tool;

/** The tools that work with the samples of a project; they share one book of them. */
public final class SampleTools {

  private SampleTools() {}

  public static List<Tool> of(Desk desk) {
    Supplier<SampleBook> book = new Supplier<>() {
      private SampleBook opened;

      @Override
      public SampleBook get() {
        if (opened == null) {
          opened = new SampleBook(desk.workspace());
        }
        return opened;
      }
    };
    return List.of(
        new SamplesTool(desk, book), new PixelsTool(desk, book), new WeighTool(desk, book));
  }
}
