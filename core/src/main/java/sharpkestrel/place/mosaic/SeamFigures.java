package sharpkestrel.place.mosaic;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import sharpkestrel.geo.SeamVisibility;
import sharpkestrel.raster.Grid;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Parallel;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.Window;

/** Measures how much scenes differ along seams. */
final class SeamFigures {

  /** Pixels darker than this share of their block's median are taken for shadow. */
  private static final float SHADOW = 0.5f;
  /** Metres in a pixel of the level on which blocks are compared, at most. */
  private static final double FINEST = 2;

  private final List<Member> members;
  private final Tone[][] tones;
  private final Optional<Levels> levels;
  private final double[] range;
  private final double metres;
  private final Job job;

  /**
   * @param levels where slow differences are evened out along the seams
   * @param metres in a pixel of the block's grid
   */
  SeamFigures(
      List<Member> members,
      Tone[][] tones,
      Optional<Levels> levels,
      double[] range,
      double metres,
      Job job) {
    this.members = members;
    this.tones = tones;
    this.levels = levels;
    this.range = range;
    this.metres = metres;
    this.job = job;
  }

  /** A block of ground across which two scenes meet. */
  private record Meeting(Window window, int one, int two) {}

  SeamVisibility of(Overview overview, PolygonFill[] areas) {
    int level = 0;
    while (metres * (2L << level) <= FINEST) {
      level++;
    }
    byte[] drawn = drawn(overview, areas);
    byte[] laid = laid(overview);
    List<Meeting> after = meetings(drawn, overview, level);
    List<Meeting> before = meetings(laid, overview, level);
    return new SeamVisibility(
        median(before, level, overview.level(), false),
        median(after, level, overview.level(), true),
        after.size(),
        Tones.BLOCK);
  }

  /** The number of the scene that shows each pixel of the overview: the first that has any. */
  private static byte[] laid(Overview overview) {
    Grid grid = overview.grid();
    byte[] labels = new byte[(int) grid.pixels()];
    for (int m = overview.members() - 1; m >= 0; m--) {
      Window w = overview.windows().get(m);
      for (int i = 0; i < w.area(); i++) {
        if (overview.isValid(m, i)) {
          labels[(w.y() + i / w.width()) * grid.width() + w.x() + i % w.width()] = (byte) (m + 1);
        }
      }
    }
    return labels;
  }

  private static byte[] drawn(Overview overview, PolygonFill[] areas) {
    byte[] labels = laid(overview);
    Grid grid = overview.grid();
    for (int m = 0; m < areas.length; m++) {
      if (areas[m] == null) {
        continue;
      }
      boolean[] inside = areas[m].fill(overview.level(), grid.window());
      Window w = overview.windows().get(m);
      for (int i = 0; i < w.area(); i++) {
        int at = (w.y() + i / w.width()) * grid.width() + w.x() + i % w.width();
        if (inside[at] && overview.isValid(m, i)) {
          labels[at] = (byte) (m + 1);
        }
      }
    }
    return labels;
  }

  private List<Meeting> meetings(byte[] labels, Overview overview, int level) {
    Grid grid = overview.grid();
    double cell = metres * (1L << overview.level());
    int side = (int) Math.max(2, Math.round(Tones.BLOCK / cell));
    List<Meeting> meetings = new ArrayList<>();
    int[] counts = new int[members.size() + 1];
    for (int top = 0; top < grid.height(); top += side) {
      for (int left = 0; left < grid.width(); left += side) {
        Arrays.fill(counts, 0);
        for (int y = top; y < Math.min(grid.height(), top + side); y++) {
          for (int x = left; x < Math.min(grid.width(), left + side); x++) {
            counts[labels[y * grid.width() + x]]++;
          }
        }
        counts[0] = 0;
        int one = largest(counts);
        counts[one] = 0;
        int two = largest(counts);
        if (one > 0 && two > 0) {
          meetings.add(new Meeting(
              window(left + side / 2.0, top + side / 2.0, overview.level(), level), one, two));
        }
      }
    }
    return meetings;
  }

  private static int largest(int[] counts) {
    int best = 0;
    for (int i = 1; i < counts.length; i++) {
      best = counts[i] > counts[best] ? i : best;
    }
    return best;
  }

  /** The block about a place of the overview, in pixels of a finer level. */
  private Window window(double x, double y, int from, int level) {
    double finer = Math.pow(2, from - level);
    int side = (int) Math.max(1, Math.round(Tones.BLOCK / (metres * (1L << level))));
    return new Window(
        (int) Math.round(x * finer - side / 2.0),
        (int) Math.round(y * finer - side / 2.0),
        side,
        side);
  }

  private double median(List<Meeting> meetings, int level, int overviewLevel, boolean balanced) {
    float[] all = new float[meetings.size() * range.length];
    Arrays.fill(all, Float.NaN);
    Parallel.run(meetings.size(), job, k -> {
      Meeting at = meetings.get(k);
      float[][] one = read(at.one, at.window, level, balanced);
      float[][] two = read(at.two, at.window, level, balanced);
      boolean[] lit = lit(one, two);
      for (int b = 0; b < range.length; b++) {
        float[] a = new float[lit.length];
        float[] c = new float[lit.length];
        int count = 0;
        for (int i = 0; i < lit.length; i++) {
          if (lit[i]) {
            a[count] = one[b][i];
            c[count++] = two[b][i];
          }
        }
        if (2 * count > lit.length) {
          double evened =
              balanced && levels.isPresent() ? between(at, b, level - overviewLevel) : 0;
          double apart = Tones.median(c, count) - Tones.median(a, count) - evened;
          all[k * range.length + b] = (float) (Math.abs(apart) / range[b] * 100);
        }
      }
    });
    int known = 0;
    for (float v : all) {
      if (!Float.isNaN(v)) {
        all[known++] = v;
      }
    }
    return known == 0 ? Double.NaN : Tones.median(all, known);
  }

  /** What is evened out between the scenes of a block. */
  private double between(Meeting at, int band, int finer) {
    double toOverview = Math.pow(2, finer);
    double x = (at.window.x() + at.window.width() / 2.0) * toOverview;
    double y = (at.window.y() + at.window.height() / 2.0) * toOverview;
    return levels.orElseThrow().between(at.one - 1, at.two - 1, band, x, y);
  }

  private float[][] read(int number, Window window, int level, boolean balanced) {
    Member member = members.get(number - 1);
    float[][] planes = new float[range.length][window.area()];
    member.read(level, window, planes, job.request());
    for (int b = 0; b < planes.length && balanced; b++) {
      tones[number - 1][b].apply(planes[b], member.raster().grid().atLevel(level), window);
    }
    return planes;
  }

  /** Pixels that both scenes have and neither has in shadow. */
  private static boolean[] lit(float[][] one, float[][] two) {
    float[] brightOne = bright(one);
    float[] brightTwo = bright(two);
    float leastOne = SHADOW * medianOfKnown(brightOne);
    float leastTwo = SHADOW * medianOfKnown(brightTwo);
    boolean[] lit = new boolean[brightOne.length];
    for (int i = 0; i < lit.length; i++) {
      lit[i] = brightOne[i] >= leastOne && brightTwo[i] >= leastTwo;
    }
    return lit;
  }

  private static float[] bright(float[][] planes) {
    float[] sum = new float[planes[0].length];
    for (float[] plane : planes) {
      for (int i = 0; i < sum.length; i++) {
        sum[i] += plane[i];
      }
    }
    return sum;
  }

  private static float medianOfKnown(float[] values) {
    float[] known = new float[values.length];
    int count = 0;
    for (float v : values) {
      if (!Float.isNaN(v)) {
        known[count++] = v;
      }
    }
    return count == 0 ? Float.NaN : (float) Tones.median(known, count);
  }
}
