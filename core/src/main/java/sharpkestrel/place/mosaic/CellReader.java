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

/** Reads what seams are chosen by: balanced values of all scenes where they overlap, strip by strip. */
final class CellReader {

  private static final int IN_CLEARANCE = 1500;
  private static final int IN_WHOLE = 60_000;
  private static final int STRIP = 64;
  private static final int MOST_BANDS = 3;

  private final List<Member> members;
  private final Tone[][] tones;
  private final double[] range;
  private final int[] bands;
  private final Obstacles obstacles;
  private final Optional<Levels> levels;
  private final Job job;

  /**
   * @param range of each band's values
   * @param levels what will be evened out along the seams and is no difference
   */
  CellReader(
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

  /**
   * @param free by cell of the grid; null for all
   */
  SeamCells read(int level, Grid grid, boolean[] free) {
    int strips = Math.ceilDiv(grid.height(), STRIP);
    SeamCells.Part[] parts = new SeamCells.Part[strips];
    Parallel.run(strips, job, s -> {
      Window strip = new Window(0, s * STRIP, grid.width(), STRIP).intersect(grid.window());
      parts[s] = strip(level, strip, free);
    });
    int count = Arrays.stream(parts).mapToInt(SeamCells.Part::count).sum();
    int[] places = new int[count];
    long[] valid = new long[count];
    int[] penalty = new int[count];
    float[][] values = new float[members.size()][];
    List<int[]> lone = new ArrayList<>();
    int at = 0;
    for (int s = 0; s < strips; s++) {
      SeamCells.Part part = parts[s];
      System.arraycopy(part.places(), 0, places, at, part.count());
      System.arraycopy(part.valid(), 0, valid, at, part.count());
      System.arraycopy(part.penalty(), 0, penalty, at, part.count());
      for (int m = 0; m < values.length; m++) {
        if (part.values()[m] != null) {
          values[m] = values[m] == null ? new float[count * bands.length] : values[m];
          System.arraycopy(
              part.values()[m], 0, values[m], at * bands.length, part.count() * bands.length);
        }
      }
      lone.addAll(part.lone());
      at += part.count();
      parts[s] = null;
    }
    return new SeamCells(
        new SeamCells.Part(places, valid, values, penalty, lone),
        bands,
        range,
        levels,
        grid.width(),
        Math.pow(2, level - Overview.levelOf(members.getFirst().raster().grid())));
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

  private SeamCells.Part strip(int level, Window strip, boolean[] free) {
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

  private SeamCells.Part pick(
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
    return new SeamCells.Part(places, valid, values, penalty, lone);
  }
}
