package sharpkestrel.step;

import java.nio.file.Path;
import java.util.List;
import java.util.function.UnaryOperator;

/** Which files a step reads when a setting names one: sidecars and parts beside it count as much as itself. */
public interface Sources {

  /**
   * @param named the file or folder that the setting names
   * @param settings the text of any setting of the step; empty where it is not given
   * @return every file that counts, whether it is there or not
   */
  List<Path> of(Path named, UnaryOperator<String> settings);

  /** The file itself. */
  final class Itself implements Sources {
    @Override
    public List<Path> of(Path named, UnaryOperator<String> settings) {
      return List.of(named);
    }
  }
}
