package sharpkestrel.place.mosaic;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Window;

/**
 * Chooses for every place which scene shows it, so that seams run where scenes differ least and around what is to be kept
 * whole: the cheapest labelling of a grid of cells by expanding one scene after the other with minimum cuts (Boykov, Veksler
 * and Zabih 2001, Fast approximate energy minimization via graph cuts, IEEE Trans. PAMI 23(11), 1222-1239; for seams Kwatra
 * et al. 2003, ACM Trans. Graphics 22(3), 277-286). All overlaps at a reduced level first; then, level by level, a band
 * about the seams only.
 */
final class SeamFinder {

  /** Cost of a seam between two cells that agree, so that seams are short. */
  private static final int LENGTH = 4;
  /** Cost of a difference of the whole range. */
  private static final int DIFFERENCE = 4000;

  private static final int IN_CLEARANCE = 1500;
  private static final int IN_WHOLE = 60_000;
  /** What is not known, at the edges of scenes, is taken for this share of the range. */
  private static final float UNKNOWN = 0.1f;

  private static final int BAND = 4;
  private static final int SWEEPS = 4;
  private static final int STRIP = 64;
  private static final int MOST_BANDS = 3;
  private static final int MOST_CELLS = 64_000_000;

  private final List<Member> members;
  private final Tone[][] tones;
  private final double[] range;
  private final int[] bands;
  private final Obstacles obstacles;
  private final Optional<Levels> levels;
  private final int overviewLevel;
  private final Job job;

  /**
   * @param range of each band's values
   * @param levels what will be evened out along the seams and is no difference
   */
  SeamFinder(
      List<Member> members,
      Tone[][] tones,
      double[] range,
      Obstacles obstacles,
      Optional<Levels> levels,
      Job job) {
    this.members = members;
    this.tones = tones;
    this.range = range;
    this.obstacles = obstacles;
    this.levels = levels;
    overviewLevel = Overview.levelOf(members.getFirst().raster().grid());
    this.job = job;
    bands = telling(members.getFirst().raster());
  }

  /** Three bands that tell differences: red, green and near infrared where there are such. */
  private static int[] telling(Raster raster) {
    int count = raster.bands().size();
    if (count <= MOST_BANDS) {
      return IntStream.range(0, count).toArray();
    }
    int[] chosen = IntStream.of(
            raster.bandOf(BandRole.GREEN).orElse(-1),
            raster.bandOf(BandRole.RED).orElse(-1),
            raster.bandOf(BandRole.NEAR_INFRARED).orElse(-1))
        .filter(b -> b >= 0)
        .toArray();
    return chosen.length == MOST_BANDS ? chosen : IntStream.range(0, MOST_BANDS).toArray();
  }

  /** The number of the scene that shows each cell of a level; 0 for none. */
  record Labels(int level, Grid grid, byte[] of) {}

  Labels find() {
    Grid full = members.getFirst().raster().grid();
    int level = Overview.levelOf(full);
    int last = lastLevel(full);
    Labels labels = null;
    for (int l = Math.max(level, last); l >= last; l--) {
      job.progress("finding seams", Math.max(level, last) - l, Math.max(level, last) - last + 1L);
      labels = refine(labels, l, full.atLevel(l));
    }
    return labels;
  }

  /** Cells of two pixels or a metre, as far as there are not too many. */
  private static int lastLevel(Grid full) {
    int level = 0;
    while (full.atLevel(level).pixelSize() < 0.99 && level < 1
        || full.atLevel(level).pixels() > MOST_CELLS) {
      level++;
    }
    return level;
  }

  private Labels refine(Labels before, int level, Grid grid) {
    int width = grid.width();
    byte[] labels = new byte[Math.toIntExact(grid.pixels())];
    boolean[] free = null;
    if (before != null) {
      upsample(before, labels, grid);
      free = band(labels, width, grid.height());
    }
    Cells cells = read(level, grid, free);
    if (before == null) {
      cells.lone.forEach(run -> Arrays.fill(labels, run[0], run[1], (byte) run[2]));
    }
    for (int i = 0; i < cells.count; i++) {
      labels[cells.places[i]] = (byte) (Long.numberOfTrailingZeros(cells.valid[i]) + 1);
    }
    boolean changed = true;
    for (int sweep = 0; changed && sweep < SWEEPS; sweep++) {
      changed = false;
      for (Member member : members) {
        job.cancellation().check();
        changed |= expand(cells, labels, grid, member.number());
      }
      // of two scenes one cut finds the best
      changed &= members.size() > 2;
    }
    return new Labels(level, grid, labels);
  }

  private static void upsample(Labels before, byte[] labels, Grid grid) {
    for (int y = 0; y < grid.height(); y++) {
      int from = (y / 2) * before.grid.width();
      for (int x = 0; x < grid.width(); x++) {
        labels[y * grid.width() + x] = before.of[from + x / 2];
      }
    }
  }

  /** Cells near those beside which another scene is shown. */
  private static boolean[] band(byte[] labels, int width, int height) {
    boolean[] band = new boolean[labels.length];
    for (int i = 0; i < labels.length; i++) {
      int x = i % width;
      boolean seam = labels[i] != 0
          && (x + 1 < width && labels[i + 1] != 0 && labels[i + 1] != labels[i]
              || i + width < labels.length
                  && labels[i + width] != 0
                  && labels[i + width] != labels[i]);
      if (seam) {
        int y = i / width;
        for (int row = Math.max(0, y - BAND); row <= Math.min(height - 1, y + BAND); row++) {
          Arrays.fill(
              band,
              row * width + Math.max(0, x - BAND),
              row * width + Math.min(width, x + BAND + 1),
              true);
        }
      }
    }
    return band;
  }

  /**
   * Cells that more than one scene shows, in ascending order of place.
   *
   * @param valid bit k for the scene of number k + 1
   * @param values by member, {@code bands} numbers a cell in shares of the range; null where a member shows none
   * @param penalty of a seam through the cell
   * @param width of the grid
   * @param toOverview pixels of the overview in a cell
   * @param lone first place, place behind the last, and number of runs of cells that one scene shows
   */
  private record Cells(
      int count,
      int[] places,
      long[] valid,
      float[][] values,
      int[] penalty,
      List<int[]> lone,
      int width,
      double toOverview) {

    double x(int i) {
      return (places[i] % width + 0.5) * toOverview;
    }

    double y(int i) {
      return (places[i] / width + 0.5) * toOverview;
    }
  }

  private Cells read(int level, Grid grid, boolean[] free) {
    int strips = Math.ceilDiv(grid.height(), STRIP);
    Cells[] parts = new Cells[strips];
    Parallel.run(strips, job, s -> {
      Window strip = new Window(0, s * STRIP, grid.width(), STRIP).intersect(grid.window());
      parts[s] = strip(level, strip, free);
    });
    int count = Arrays.stream(parts).mapToInt(Cells::count).sum();
    int[] places = new int[count];
    long[] valid = new long[count];
    int[] penalty = new int[count];
    float[][] values = new float[members.size()][];
    List<int[]> lone = new ArrayList<>();
    int at = 0;
    for (int s = 0; s < strips; s++) {
      Cells part = parts[s];
      System.arraycopy(part.places, 0, places, at, part.count);
      System.arraycopy(part.valid, 0, valid, at, part.count);
      System.arraycopy(part.penalty, 0, penalty, at, part.count);
      for (int m = 0; m < values.length; m++) {
        if (part.values[m] != null) {
          values[m] = values[m] == null ? new float[count * bands.length] : values[m];
          System.arraycopy(
              part.values[m], 0, values[m], at * bands.length, part.count * bands.length);
        }
      }
      lone.addAll(part.lone);
      at += part.count;
      parts[s] = null;
    }
    return new Cells(
        count,
        places,
        valid,
        values,
        penalty,
        lone,
        grid.width(),
        Math.pow(2, level - overviewLevel));
  }

  /** The columns of a strip in which any cell is free. */
  private static Window wanted(Window strip, boolean[] free) {
    if (free == null) {
      return strip;
    }
    int left = strip.width();
    int right = 0;
    for (int y = strip.y(); y < strip.bottom(); y++) {
      for (int x = 0; x < strip.width(); x++) {
        if (free[y * strip.width() + x]) {
          left = Math.min(left, x);
          right = Math.max(right, x + 1);
        }
      }
    }
    return new Window(left, strip.y(), Math.max(0, right - left), strip.height());
  }

  private Cells strip(int level, Window strip, boolean[] free) {
    Window window = wanted(strip, free);
    int area = window.area();
    long[] bits = new long[area];
    float[][][] planes = new float[members.size()][][];
    for (int m = 0; m < planes.length && area > 0; m++) {
      if (members.get(m).where(level).intersect(window).isEmpty()) {
        continue;
      }
      planes[m] = toned(m, level, window);
      for (int i = 0; i < area; i++) {
        boolean known = true;
        for (int b : bands) {
          known &= !Float.isNaN(planes[m][b][i]);
        }
        bits[i] |= known ? 1L << m : 0;
      }
    }
    return pick(level, strip, window, free, bits, planes);
  }

  private float[][] toned(int m, int level, Window window) {
    float[][] planes = new float[members.get(m).raster().bands().size()][];
    for (int b : bands) {
      planes[b] = new float[window.area()];
    }
    members.get(m).read(level, window, planes, job.request());
    for (int b : bands) {
      tones[m][b].apply(planes[b], members.get(m).raster().grid().atLevel(level), window);
    }
    return planes;
  }

  private Cells pick(
      int level, Window strip, Window window, boolean[] free, long[] bits, float[][][] planes) {
    List<int[]> lone = new ArrayList<>();
    int[] chosen = new int[bits.length];
    int count = 0;
    for (int i = 0; i < bits.length; i++) {
      int place =
          (window.y() + i / window.width()) * strip.width() + window.x() + i % window.width();
      if (Long.bitCount(bits[i]) > 1) {
        if (free == null || free[place]) {
          chosen[count++] = i;
        }
      } else if (bits[i] != 0) {
        int number = Long.numberOfTrailingZeros(bits[i]) + 1;
        int[] run = lone.isEmpty() ? null : lone.getLast();
        if (run != null && run[1] == place && run[2] == number) {
          run[1]++;
        } else {
          lone.add(new int[] {place, place + 1, number});
        }
      }
    }
    int[] places = new int[count];
    long[] valid = new long[count];
    int[] penalty = new int[count];
    float[][] values = new float[planes.length][];
    byte[] in = count == 0 ? new byte[0] : obstacles.in(level, window, job.request());
    for (int k = 0; k < count; k++) {
      int i = chosen[k];
      places[k] =
          (window.y() + i / window.width()) * strip.width() + window.x() + i % window.width();
      valid[k] = bits[i];
      penalty[k] = switch (in[i]) {
        case Obstacles.WITHIN -> IN_WHOLE;
        case Obstacles.NEAR -> IN_CLEARANCE;
        default -> 0;
      };
    }
    for (int m = 0; m < planes.length; m++) {
      if (planes[m] == null) {
        continue;
      }
      values[m] = new float[count * bands.length];
      for (int k = 0; k < count; k++) {
        for (int b = 0; b < bands.length; b++) {
          values[m][k * bands.length + b] =
              (float) (planes[m][bands[b]][chosen[k]] / range[bands[b]]);
        }
      }
    }
    return new Cells(count, places, valid, values, penalty, lone, strip.width(), 1);
  }

  /** What it costs at a cell that one scene is shown on the one side of it and another on the other. */
  private int cost(Cells cells, int i, int one, int two) {
    if (one == two) {
      return 0;
    }
    long both = 1L << one - 1 | 1L << two - 1;
    float sum = UNKNOWN * bands.length;
    if ((cells.valid[i] & both) == both) {
      sum = 0;
      float[] a = cells.values[one - 1];
      float[] b = cells.values[two - 1];
      for (int k = 0; k < bands.length; k++) {
        double apart = b[i * bands.length + k] - a[i * bands.length + k];
        if (levels.isPresent()) {
          apart -= levels.get().between(one - 1, two - 1, bands[k], cells.x(i), cells.y(i))
              / range[bands[k]];
        }
        sum += (float) Math.abs(apart);
      }
    }
    return LENGTH + cells.penalty[i] + Math.round(Math.min(1, sum / bands.length) * DIFFERENCE);
  }

  /** Shows a scene wherever that makes the whole cheaper; tells whether that is anywhere. */
  private boolean expand(Cells cells, byte[] labels, Grid grid, int number) {
    int[] variable = new int[cells.count];
    int count = 0;
    for (int i = 0; i < cells.count; i++) {
      boolean may = (cells.valid[i] >> number - 1 & 1) == 1 && labels[cells.places[i]] != number;
      variable[i] = may ? count++ : -1;
    }
    if (count == 0) {
      return false;
    }
    MinCut cut = new MinCut(count);
    int width = grid.width();
    int below = 0;
    for (int i = 0; i < cells.count; i++) {
      int place = cells.places[i];
      int x = place % width;
      while (below < cells.count && cells.places[below] < place + width) {
        below++;
      }
      boolean hasRight = i + 1 < cells.count && cells.places[i + 1] == place + 1;
      boolean hasBelow = below < cells.count && cells.places[below] == place + width;
      if (x + 1 < width) {
        join(cells, labels, cut, variable, number, i, hasRight ? i + 1 : -1, place + 1);
      }
      if (place + width < labels.length) {
        join(cells, labels, cut, variable, number, i, hasBelow ? below : -1, place + width);
      }
      if (x > 0 && (i == 0 || cells.places[i - 1] != place - 1)) {
        beside(cells, labels, cut, variable, number, i, place - 1);
      }
      if (place >= width && !isCell(cells, place - width, i)) {
        beside(cells, labels, cut, variable, number, i, place - width);
      }
    }
    cut.solve();
    boolean changed = false;
    for (int i = 0; i < cells.count; i++) {
      if (variable[i] >= 0 && !cut.onSource(variable[i])) {
        labels[cells.places[i]] = (byte) number;
        changed = true;
      }
    }
    return changed;
  }

  private static boolean isCell(Cells cells, int place, int before) {
    return Arrays.binarySearch(cells.places, 0, before, place) >= 0;
  }

  /** A cell and the one to its right or below it. */
  private void join(
      Cells cells,
      byte[] labels,
      MinCut cut,
      int[] variable,
      int number,
      int i,
      int j,
      int otherPlace) {
    if (j < 0) {
      beside(cells, labels, cut, variable, number, i, otherPlace);
      return;
    }
    int here = labels[cells.places[i]];
    int there = labels[otherPlace];
    if (variable[i] < 0 && variable[j] < 0) {
      return;
    }
    int keepKeep = between(cells, i, j, here, there);
    int keepTake = between(cells, i, j, here, number);
    int takeKeep = between(cells, i, j, number, there);
    if (variable[j] < 0) {
      cut.add(variable[i], takeKeep, keepKeep);
    } else if (variable[i] < 0) {
      cut.add(variable[j], keepTake, keepKeep);
    } else {
      // at the edges of scenes the triangle's inequality may fail
      keepKeep = Math.min(keepKeep, keepTake + takeKeep);
      cut.add(variable[i], takeKeep, keepKeep);
      cut.add(variable[j], 0, takeKeep);
      cut.link(variable[i], variable[j], keepTake + takeKeep - keepKeep, 0);
    }
  }

  private int between(Cells cells, int i, int j, int one, int two) {
    return one == two ? 0 : cost(cells, i, one, two) + cost(cells, j, one, two);
  }

  /** A cell and a neighbour that is not open to choice. */
  private void beside(
      Cells cells, byte[] labels, MinCut cut, int[] variable, int number, int i, int otherPlace) {
    int there = labels[otherPlace];
    if (variable[i] < 0 || there == 0 || (cells.valid[i] >> there - 1 & 1) == 0) {
      return;
    }
    int keep = 2 * cost(cells, i, labels[cells.places[i]], there);
    int take = 2 * cost(cells, i, number, there);
    cut.add(variable[i], take, keep);
  }
}
