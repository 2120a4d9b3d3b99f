package sharpkestrel.place.mosaic;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import sharpkestrel.raster.Attachments;
import sharpkestrel.raster.DerivedRaster;
import sharpkestrel.raster.Distances;
import sharpkestrel.raster.Planes;
import sharpkestrel.raster.PolygonFill;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Window;
import sharpkestrel.raster.Zoom;

/**
 * Balanced scenes laid together. A pixel comes from scenes that have all bands there; where the scene of an area has none,
 * another that has is shown, so that seams never make holes.
 */
final class MosaicRaster extends DerivedRaster {

  /** Feathers are no wider than this in pixels of the level that is looked at. */
  private static final int WIDEST = 256;

  private final List<Member> members;
  private final Tone[][] tones;
  private final Overlap overlap;
  private final PolygonFill[] areas;
  private final Optional<PolygonFill> within;
  private final double feather;
  private final Optional<Levelling> levelling;

  /**
   * Evens out slow differences along seams.
   *
   * @param level of the overview they are known on
   */
  record Levelling(Levels levels, Shares shares, int level) {}

  /**
   * @param areas by member, for seams
   * @param within what is cut out, else all
   * @param feather pixels over which scenes blend into each other
   */
  MosaicRaster(
      List<Member> members,
      Tone[][] tones,
      Overlap overlap,
      PolygonFill[] areas,
      Optional<PolygonFill> within,
      double feather,
      Optional<Levelling> levelling,
      Attachments attachments) {
    super(
        members.getFirst().raster().grid(),
        members.getFirst().raster().bands(),
        attachments,
        zoom(members));
    this.members = members;
    this.tones = tones;
    this.overlap = overlap;
    this.areas = areas;
    this.within = within;
    this.feather = feather;
    this.levelling = levelling;
  }

  private static Zoom zoom(List<Member> members) {
    Zoom zoom = Zoom.RESAMPLING;
    for (Member member : members) {
      zoom = zoom.over(member.raster().zoom());
    }
    return zoom;
  }

  /** A member's pixels in a window, balanced. */
  private record Part(int member, float[][] planes, boolean[] valid) {}

  @Override
  protected void compute(int level, Window window, float[][] target, Request request) {
    Planes.fillNaN(target);
    boolean[] shown = within.map(w -> w.fill(level, window)).orElse(null);
    if (shown != null && none(shown)) {
      return;
    }
    double width = Math.min(WIDEST, feather / (1 << level));
    switch (overlap) {
      case SEAMS -> seams(level, window, width, target, request);
      case FEATHERED -> feathered(level, window, Math.max(1, width), target, request);
      case MEAN, MINIMUM, MAXIMUM -> all(level, window, target, request);
      case FIRST, LAST, MOST_NADIR -> {
        List<Member> order = new ArrayList<>(members);
        if (overlap == Overlap.LAST) {
          order = order.reversed();
        } else if (overlap == Overlap.MOST_NADIR) {
          order.sort(Comparator.comparingDouble(Member::nadir));
        }
        fill(level, window, order, new boolean[window.area()], target, request);
      }
    }
    for (float[] plane : target) {
      for (int i = 0; shown != null && plane != null && i < plane.length; i++) {
        plane[i] = shown[i] ? plane[i] : Float.NaN;
      }
    }
  }

  private static boolean none(boolean[] flags) {
    for (boolean flag : flags) {
      if (flag) {
        return false;
      }
    }
    return true;
  }

  private static boolean all(boolean[] flags) {
    for (boolean flag : flags) {
      if (!flag) {
        return false;
      }
    }
    return true;
  }

  /** Empty where a member has nothing in a window. */
  private Optional<Part> part(Member member, int level, Window window, Request request) {
    if (member.where(level).intersect(window).isEmpty()) {
      return Optional.empty();
    }
    float[][] planes = new float[bands().size()][window.area()];
    member.read(level, window, planes, request);
    boolean[] valid = new boolean[window.area()];
    Arrays.fill(valid, true);
    for (int b = 0; b < planes.length; b++) {
      tones[member.number() - 1][b].apply(planes[b], grid().atLevel(level), window);
      for (int i = 0; i < valid.length; i++) {
        valid[i] &= !Float.isNaN(planes[b][i]);
      }
    }
    return Optional.of(new Part(member.number() - 1, planes, valid));
  }

  /** Fills what is open yet with the first member that has it. */
  private void fill(
      int level,
      Window window,
      List<Member> order,
      boolean[] done,
      float[][] target,
      Request request) {
    for (Member member : order) {
      if (all(done)) {
        return;
      }
      part(member, level, window, request).ifPresent(part -> {
        for (int i = 0; i < done.length; i++) {
          if (part.valid[i] && !done[i]) {
            done[i] = true;
            put(part, i, target);
          }
        }
      });
    }
  }

  private static void put(Part part, int i, float[][] target) {
    for (int b = 0; b < target.length; b++) {
      if (target[b] != null) {
        target[b][i] = part.planes[b][i];
      }
    }
  }

  private void all(int level, Window window, float[][] target, Request request) {
    int[] counts = new int[window.area()];
    for (Member member : members) {
      part(member, level, window, request).ifPresent(part -> {
        for (int i = 0; i < counts.length; i++) {
          if (part.valid[i]) {
            counts[i]++;
            for (int b = 0; b < target.length; b++) {
              if (target[b] != null) {
                float v = part.planes[b][i];
                float before = target[b][i];
                target[b][i] = counts[i] == 1
                    ? v
                    : switch (overlap) {
                      case MINIMUM -> Math.min(before, v);
                      case MAXIMUM -> Math.max(before, v);
                      default -> before + v;
                    };
              }
            }
          }
        }
      });
    }
    for (float[] plane : target) {
      for (int i = 0; overlap == Overlap.MEAN && plane != null && i < plane.length; i++) {
        plane[i] /= counts[i];
      }
    }
  }

  /** Weighted sums of members, where any weighs something. */
  private final class Sums {
    private final float[][] target;
    private final float[] weights;

    Sums(float[][] target, int area) {
      this.target = target;
      weights = new float[area];
    }

    void add(Part part, float[] weight) {
      for (int i = 0; i < weights.length; i++) {
        if (!part.valid[i] || weight[i] <= 0) {
          continue;
        }
        for (int b = 0; b < target.length; b++) {
          if (target[b] != null) {
            float v = weight[i] * part.planes[b][i];
            target[b][i] = weights[i] == 0 ? v : target[b][i] + v;
          }
        }
        weights[i] += weight[i];
      }
    }

    boolean[] finish() {
      boolean[] done = new boolean[weights.length];
      for (int i = 0; i < done.length; i++) {
        done[i] = weights[i] > 0;
        for (int b = 0; b < target.length && done[i] && weights[i] != 1; b++) {
          if (target[b] != null) {
            target[b][i] /= weights[i];
          }
        }
      }
      return done;
    }
  }

  private void seams(int level, Window window, double width, float[][] target, Request request) {
    Sums sums = new Sums(target, window.area());
    for (Member member : members) {
      PolygonFill area = areas[member.number() - 1];
      if (area != null) {
        float[] weight =
            width >= 1 ? soft(area, level, window, width) : hard(area.fill(level, window));
        if (weighs(weight)) {
          part(member, level, window, request).ifPresent(part -> {
            levelling.ifPresent(by -> level(part, by, level, window, target));
            sums.add(part, weight);
          });
        }
      }
    }
    fill(level, window, members, sums.finish(), target, request);
  }

  /** Brings the tones of a part towards those of the scenes beyond near seams. */
  private void level(Part part, Levelling by, int level, Window window, float[][] wanted) {
    double toOverview = Math.pow(2, level - by.level);
    for (int i = 0; i < part.valid.length; i++) {
      double x = (window.x() + i % window.width() + 0.5) * toOverview;
      double y = (window.y() + i / window.width() + 0.5) * toOverview;
      if (!part.valid[i] || by.shares.of(part.member, x, y) > 0.999) {
        continue;
      }
      for (int other = 0; other < members.size(); other++) {
        double share = other == part.member ? 0 : by.shares.of(other, x, y);
        for (int b = 0; b < wanted.length && share > 0; b++) {
          if (wanted[b] != null) {
            part.planes[b][i] += (float) (share * by.levels.between(part.member, other, b, x, y));
          }
        }
      }
    }
  }

  private static boolean weighs(float[] weights) {
    for (float weight : weights) {
      if (weight > 0) {
        return true;
      }
    }
    return false;
  }

  private static float[] hard(boolean[] inside) {
    float[] weight = new float[inside.length];
    for (int i = 0; i < weight.length; i++) {
      weight[i] = inside[i] ? 1 : 0;
    }
    return weight;
  }

  /** From 0 half a width outside of an area to 1 half a width inside. */
  private static float[] soft(PolygonFill area, int level, Window window, double width) {
    int halo = (int) Math.ceil(width / 2) + 1;
    Window larger = window.grown(halo);
    boolean[] inside = area.fill(level, larger);
    if (none(inside)) {
      return new float[window.area()];
    }
    float[] signed = Distances.inside(inside, larger.width(), larger.height());
    float[] weight = new float[window.area()];
    for (int i = 0; i < weight.length; i++) {
      int j = (i / window.width() + halo) * larger.width() + i % window.width() + halo;
      weight[i] = (float) Math.max(0, Math.min(1, 0.5 + signed[j] / width));
    }
    return weight;
  }

  private void feathered(
      int level, Window window, double width, float[][] target, Request request) {
    int halo = (int) Math.ceil(width) + 1;
    Window larger = window.grown(halo);
    Sums sums = new Sums(target, window.area());
    for (Member member : members) {
      Optional<Part> wide = part(member, level, larger, request);
      if (wide.isEmpty() || none(wide.get().valid)) {
        continue;
      }
      boolean[] missing = new boolean[larger.area()];
      for (int i = 0; i < missing.length; i++) {
        missing[i] = !wide.get().valid[i];
      }
      float[] away = Distances.to(missing, larger.width(), larger.height());
      float[] weight = new float[window.area()];
      boolean[] valid = new boolean[window.area()];
      float[][] planes = new float[bands().size()][window.area()];
      for (int i = 0; i < weight.length; i++) {
        int j = (i / window.width() + halo) * larger.width() + i % window.width() + halo;
        weight[i] = (float) Math.min(1, away[j] / width);
        valid[i] = wide.get().valid[j];
      }
      for (int b = 0; b < planes.length; b++) {
        Planes.copy(wide.get().planes[b], larger, planes[b], window);
      }
      sums.add(new Part(member.number() - 1, planes, valid), weight);
    }
    sums.finish();
  }
}
