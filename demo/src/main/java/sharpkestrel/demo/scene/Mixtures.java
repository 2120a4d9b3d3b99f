package sharpkestrel.demo.scene;

import static sharpkestrel.demo.ground.GroundTile.Field.BLEACHED;
import static sharpkestrel.demo.ground.GroundTile.Field.BROAD;
import static sharpkestrel.demo.ground.GroundTile.Field.DAMP;
import static sharpkestrel.demo.ground.GroundTile.Field.ROAD;
import static sharpkestrel.demo.ground.GroundTile.Field.SHORE;

import sharpkestrel.demo.ground.Cover;
import sharpkestrel.demo.ground.Ground;
import sharpkestrel.demo.ground.GroundTile;
import sharpkestrel.demo.ground.Parcel;
import sharpkestrel.demo.noise.SmoothTexture;

/** Land whose cover is told as mixtures. */
final class Mixtures {

  private final Ground ground;
  private final Cover cover;
  private final SmoothTexture smooth;
  private final Grain grain;

  Mixtures(Ground ground, Cover cover, SmoothTexture smooth, Grain grain) {
    this.ground = ground;
    this.cover = cover;
    this.smooth = smooth;
    this.grain = grain;
  }

  /**
   * Lays what covers land beside its roads.
   *
   * @param sample of the tile's fields there
   * @param fine grain of decimetres
   */
  void lay(Laid laid, GroundTile tile, float[] sample, double e, double n, double fine) {
    double shore = SHORE.of(sample);
    double road = ROAD.of(sample);
    double broad = BROAD.of(sample);
    Parcel parcel = tile.parcel(e, n);
    Parcel.Use use = parcel.use();
    if (shore < 2.4 && ground.landform().front(e, n) > 0.3) {
      laid.set(cover.quay());
      laid.scale(1 + 0.08 * fine);
      return;
    }
    if (use.built() && road < 1.7 && use != Parcel.Use.STEADING) {
      laid.set(cover.pavement());
      laid.scale(1 + 0.06 * fine + 0.12 * broad);
      return;
    }
    Cover.Mixture mixture = cover.crops().getOrDefault(use, cover.open());
    double worn = 1.5 * smooth.octaves(e / 13, n / 13, 4);
    // plots of a dozen metres, each kept in its own way
    double kept = 0.75 * grain.at(0.83 * e + 0.55 * n, 0.83 * n - 0.55 * e, 13.3);
    double damp = DAMP.of(sample);
    laid.set(mixture.first());
    for (Cover.Blend blend : mixture.blends()) {
      laid.mix(blend.with(), blend.share(broad, damp, BLEACHED.of(sample), worn, kept));
    }
    if (shore < 9) {
      laid.mix(cover.bank(), (9 - shore) / 6 + 0.5 * broad);
    }
    double row = 0;
    if (mixture.rows() > 0) {
      double cos = Math.cos(parcel.rows());
      double sin = Math.sin(parcel.rows());
      double across = -e * sin + n * cos + 0.4 * smooth.at(e / 40, n / 40);
      double phase = 2 * Math.PI * across / mixture.rows();
      row = mixture.depth() * Math.sin(phase);
      laid.tiltEast = -sin * 1.4 * mixture.depth() * Math.cos(phase);
      laid.tiltNorth = cos * 1.4 * mixture.depth() * Math.cos(phase);
      double tram = across - Math.floor(across / 24) * 24;
      if (mixture.depth() > 0 && (tram < 0.5 || tram > 1.9 && tram < 2.4)) {
        row -= 0.16;
      }
    }
    double tuft = smooth.at(e / 1.4, n / 1.4);
    laid.scale(parcel.bright()
        * (1
            + row
            + laid.material.grainy * fine
            + 0.7 * laid.material.patchy * (worn + broad)
            + 0.5 * mixture.tufts() * tuft));
    laid.tiltEast += mixture.tufts() * tuft + 0.05 * fine;
    laid.tiltNorth += mixture.tufts() * smooth.at(e / 1.4 + 40, n / 1.4);
  }
}
