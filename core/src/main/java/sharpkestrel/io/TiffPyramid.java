package sharpkestrel.io;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Raster;

/**
 * One image of a TIFF file with its reduced copies and masks, from the file and from those beside it that end in
 * {@code .ovr} and {@code .msk}.
 */
final class TiffPyramid {

  private static final int REDUCED = 1;
  private static final int MASK = 4;

  private final TiffDirectory directory;
  private final TreeMap<Integer, TiffImage> levels = new TreeMap<>();
  private final TreeMap<Integer, TiffImage> masks = new TreeMap<>();
  private final int transparency;
  private final int images;
  private int overviews;
  private volatile Raster valid;

  private TiffPyramid(TiffFile file, TiffDirectory directory, int images) {
    this.directory = directory;
    this.images = images;
    TiffImage full = new TiffImage(file, directory);
    levels.put(0, full);
    transparency = transparency(directory, full.samples);
  }

  /**
   * @param wanted which of the file's images, from 1
   * @throws FileFormatException where there is no such image
   */
  static TiffPyramid of(TiffFile file, int wanted) {
    List<TiffDirectory> all = file.directories();
    List<Integer> starts = new ArrayList<>();
    for (int i = 0; i < all.size(); i++) {
      if (kind(all.get(i)) == 0 && all.get(i).has(TiffTags.WIDTH)) {
        starts.add(i);
      }
    }
    if (starts.isEmpty()) {
      starts.add(0);
    }
    if (wanted < 1 || wanted > starts.size()) {
      throw file.unsupported(
          "it holds " + starts.size() + " image(s), so there is none with the number " + wanted,
          "Choose one from 1 to " + starts.size() + ".");
    }
    int first = starts.get(wanted - 1);
    // Some writers put the reduced copies of the first image behind all the others.
    int end = wanted > 1 && wanted < starts.size() ? starts.get(wanted) : all.size();
    TiffPyramid pyramid = new TiffPyramid(file, all.get(first), starts.size());
    pyramid.add(file, all.subList(first + 1, end), 0);
    if (wanted == 1) {
      pyramid.addBeside(file.path());
    }
    return pyramid;
  }

  private void addBeside(Path path) {
    Path reduced = beside(path, ".ovr");
    if (Files.isRegularFile(reduced)) {
      TiffFile file = TiffFile.open(reduced);
      add(file, file.directories(), REDUCED);
    }
    Path hidden = beside(path, ".msk");
    if (Files.isRegularFile(hidden)) {
      TiffFile file = TiffFile.open(hidden);
      for (TiffDirectory each : file.directories()) {
        addMask(new TiffImage(file, each));
      }
    }
  }

  static Path beside(Path path, String ending) {
    return path.resolveSibling(path.getFileName() + ending);
  }

  private void add(TiffFile file, List<TiffDirectory> directories, int unnamed) {
    for (TiffDirectory each : directories) {
      int kind = kind(each) == 0 ? unnamed : kind(each);
      if ((kind & MASK) != 0) {
        addMask(new TiffImage(file, each));
      } else if ((kind & REDUCED) != 0) {
        overviews++;
        addOverview(new TiffImage(file, each));
      }
    }
  }

  private static int kind(TiffDirectory directory) {
    return directory.integer(TiffTags.SUBFILE_TYPE, 0) & (REDUCED | MASK);
  }

  private void addOverview(TiffImage image) {
    TiffImage full = full();
    int level = level(image);
    if (level > 0 && image.samples == full.samples && image.format.type() == full.format.type()) {
      levels.putIfAbsent(level, image);
    }
  }

  private void addMask(TiffImage image) {
    int level = level(image);
    if (level >= 0 && (image.samples == 1 || image.samples == full().samples)) {
      masks.putIfAbsent(level, image);
    }
  }

  private int level(TiffImage image) {
    for (int level = 0; level < 31; level++) {
      if (Grid.sizeAt(full().width, level) == image.width
          && Grid.sizeAt(full().height, level) == image.height) {
        return level;
      }
    }
    return -1;
  }

  /** The first extra sample that is said to be opacity; -1 where there is none. */
  private static int transparency(TiffDirectory directory, int samples) {
    long[] extra = directory.numbers(TiffTags.EXTRA_SAMPLES);
    for (int i = 0; i < extra.length && extra.length < samples; i++) {
      if (extra[i] == 1 || extra[i] == 2) {
        return samples - extra.length + i;
      }
    }
    return -1;
  }

  TiffDirectory directory() {
    return directory;
  }

  TiffImage full() {
    return levels.get(0);
  }

  /** By level, the full one at 0. */
  TreeMap<Integer, TiffImage> levels() {
    return levels;
  }

  /** Which sample is opacity and no band; -1 for none. */
  int transparency() {
    return transparency;
  }

  int images() {
    return images;
  }

  FileLayout layout(boolean big) {
    TiffImage full = full();
    String blocks = (full.tiled ? "tiles of " : "strips of ")
        + full.blockWidth
        + " x "
        + full.blockHeight
        + (full.samples == 1 ? "" : full.interleaved ? ", bands by pixel" : ", bands in planes");
    return new FileLayout(blocks, full.packing.toString(), overviews, big, images);
  }

  /** Which pixels are valid where a mask tells; see {@link ValidityRaster}. */
  Optional<Raster> valid(Grid grid) {
    if (valid == null && masks.containsKey(0)) {
      valid = ValidityRaster.of(grid, masks);
    }
    return Optional.ofNullable(valid);
  }
}
