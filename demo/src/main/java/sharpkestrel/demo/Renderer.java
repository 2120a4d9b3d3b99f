package sharpkestrel.demo;

import sharpkestrel.geo.Acquisition;
import sharpkestrel.geo.Acquisition.Calibration;
import sharpkestrel.raster.BandRole;
import sharpkestrel.raster.Window;

/**
 * What the sensor records: each panchromatic pixel is the mean of {@value #SAMPLES} x {@value #SAMPLES} rays spread a
 * little beyond the pixel, each multispectral one of the rays of its 4 x 4 panchromatic pixels. A ray meets crown,
 * roof, wall or ground; the surface is lit by the sun through its slope where nothing stands between, and by the sky;
 * haze is added; radiance becomes numbers of 11 bits with shot and read noise.
 */
final class Renderer {

  static final int SAMPLES = 2;
  static final int MS_RATIO = 4;
  private static final double SPREAD = 1.15;
  static final BandRole[] ROLES = {
    BandRole.VIOLET,
    BandRole.BLUE,
    BandRole.GREEN,
    BandRole.RED,
    BandRole.RED_EDGE,
    BandRole.NEAR_INFRARED
  };
  /** Share of each band in what the panchromatic detectors see; a fifth lies between the bands. */
  private static final float[] PAN_SHARE = {0.06f, 0.21f, 0.27f, 0.27f, 0.13f, 0.06f};

  private static final double[] IRRADIANCE = {1750, 1950, 1850, 1600, 1420, 1080};
  private static final double PAN_IRRADIANCE = 1640;
  /** Share of the irradiance that reaches the ground directly, from the sky, and comes back as haze. */
  private static final double[] DIRECT = {0.62, 0.69, 0.75, 0.80, 0.83, 0.86};

  private static final double[] SKY = {0.20, 0.155, 0.115, 0.085, 0.07, 0.055};
  private static final double[] HAZE = {0.075, 0.052, 0.033, 0.021, 0.015, 0.010};
  private static final double FULL_SCALE = 2047;
  private static final double READ_NOISE = 1.6;
  private static final double ELECTRONS_PER_NUMBER = 9;
  private static final int GRAIN = 512;

  private final World world;
  private final Terrain terrain;
  private final Noise texture;
  private final SmoothTexture smooth;
  private final Noise sensorNoise;
  private final double[] sunRay;
  private final double[] sun;
  private final double sinElevation;
  private final double[] gains = new double[Material.BANDS];
  private final double[] skyLight = new double[Material.BANDS];
  private final double[] haze = new double[Material.BANDS];
  private final double panGain;
  private final double sunDistance;
  private final float[] grain;

  Renderer(World world) {
    this.world = world;
    terrain = world.terrain();
    texture = new Noise(world.seed() * 31 + 5);
    smooth = new SmoothTexture(world.seed() * 31 + 8);
    sensorNoise = new Noise(world.seed() * 31 + 6);
    double elevation = Math.toRadians(world.sunElevation);
    double azimuth = Math.toRadians(world.sunAzimuth);
    sinElevation = Math.sin(elevation);
    sun = new double[] {
      Math.cos(elevation) * Math.sin(azimuth), Math.cos(elevation) * Math.cos(azimuth), sinElevation
    };
    sunRay = new double[] {sun[0] / sun[2], sun[1] / sun[2]};
    sunDistance = acquisitionWithoutGains().sunDistance();
    double distance = sunDistance;
    for (int b = 0; b < gains.length; b++) {
      // The brightest level surface, reflectance 0.85, fills the range.
      skyLight[b] = 1.4 * SKY[b] * sinElevation;
      haze[b] = HAZE[b] * sinElevation;
      gains[b] = 0.85 * IRRADIANCE[b] * sinElevation / Math.PI / (distance * distance) / FULL_SCALE;
    }
    panGain = 0.8 * PAN_IRRADIANCE * sinElevation / Math.PI / (distance * distance) / FULL_SCALE;
    grain = new float[GRAIN * GRAIN];
    Noise fine = new Noise(world.seed() * 31 + 7);
    for (int y = 0; y < GRAIN; y++) {
      for (int x = 0; x < GRAIN; x++) {
        grain[y * GRAIN + x] = (float) fine.gaussianAt(x, y);
      }
    }
  }

  private Acquisition acquisitionWithoutGains() {
    return new Acquisition(
        java.time.Instant.parse("2031-04-03T11:42:00Z"),
        world.sunElevation,
        world.sunAzimuth,
        world.offNadir,
        world.viewAzimuth,
        java.util.Map.of());
  }

  Acquisition acquisition() {
    Acquisition bare = acquisitionWithoutGains();
    java.util.Map<BandRole, Calibration> calibration = new java.util.EnumMap<>(BandRole.class);
    calibration.put(BandRole.PAN, new Calibration(panGain, 0, PAN_IRRADIANCE));
    for (int b = 0; b < gains.length; b++) {
      calibration.put(ROLES[b], new Calibration(gains[b], 0, IRRADIANCE[b]));
    }
    return new Acquisition(
        bare.time(),
        bare.sunElevation(),
        bare.sunAzimuth(),
        bare.viewOffNadir(),
        bare.viewAzimuth(),
        calibration);
  }

  /** Numbers of a window of the panchromatic scene, whose corners are multiples of 4: one plane, then six small ones. */
  float[][] render(Window window) {
    int width = window.width();
    int height = window.height();
    float[] pan = new float[width * height];
    int msWidth = width / MS_RATIO;
    int msHeight = height / MS_RATIO;
    float[][] ms = new float[Material.BANDS][msWidth * msHeight];
    Ray ray = new Ray();
    float perPan = 1f / (SAMPLES * SAMPLES);
    float perMs = perPan / (MS_RATIO * MS_RATIO);
    for (int y = 0; y < height; y++) {
      ray.guess = 20;
      for (int x = 0; x < width; x++) {
        float sum = 0;
        int msAt = y / MS_RATIO * msWidth + x / MS_RATIO;
        for (int s = 0; s < SAMPLES * SAMPLES; s++) {
          double fx = ((s % SAMPLES + 0.5) / SAMPLES - 0.5) * SPREAD + 0.5;
          double fy = ((s / SAMPLES + 0.5) / SAMPLES - 0.5) * SPREAD + 0.5;
          ray.trace(window.x() + x + fx, window.y() + y + fy);
          for (int b = 0; b < Material.BANDS; b++) {
            sum += PAN_SHARE[b] * ray.signal[b];
            ms[b][msAt] += ray.signal[b] * perMs;
          }
        }
        pan[y * width + x] =
            numbers(sum * perPan, PAN_IRRADIANCE, panGain, window.x() + x, window.y() + y, 0);
      }
    }
    float[][] planes = new float[1 + Material.BANDS][];
    planes[0] = pan;
    for (int b = 0; b < Material.BANDS; b++) {
      for (int y = 0; y < msHeight; y++) {
        for (int x = 0; x < msWidth; x++) {
          int i = y * msWidth + x;
          ms[b][i] = numbers(
              ms[b][i],
              IRRADIANCE[b],
              gains[b],
              window.x() / MS_RATIO + x,
              window.y() / MS_RATIO + y,
              b + 1);
        }
      }
      planes[b + 1] = ms[b];
    }
    return planes;
  }

  /**
   * A quick look at the whole scene: one ray for a square of pixels, without noise.
   *
   * @param step side of the square in panchromatic pixels
   * @return numbers of the six bands, rows of {@code size / step}
   */
  float[][] sketch(int step) {
    int side = world.size() / step;
    float[][] planes = new float[Material.BANDS][side * side];
    Ray ray = new Ray();
    for (int y = 0; y < side; y++) {
      ray.guess = 20;
      for (int x = 0; x < side; x++) {
        ray.trace((x + 0.5) * step, (y + 0.5) * step);
        for (int b = 0; b < Material.BANDS; b++) {
          planes[b][y * side + x] = (float) exact(ray.signal[b], IRRADIANCE[b], gains[b]);
        }
      }
    }
    return planes;
  }

  private double exact(float signal, double irradiance, double gain) {
    return signal * irradiance / Math.PI / (sunDistance * sunDistance) / gain;
  }

  /** A signal to a number: radiance over gain, with noise that grows as the root of the signal. */
  private float numbers(float signal, double irradiance, double gain, int x, int y, int band) {
    double exact = exact(signal, irradiance, gain);
    double spread = Math.sqrt(READ_NOISE * READ_NOISE + Math.max(0, exact) / ELECTRONS_PER_NUMBER);
    double noisy = exact + spread * sensorNoise.gaussianAt(x + 100_000L * band, y);
    return (float) Math.max(1, Math.min(FULL_SCALE, Math.floor(noisy + 0.5)));
  }

  /** One ray at a time, with its scratch; for use by one thread. */
  private final class Ray {
    final float[] signal = new float[Material.BANDS];
    double guess;
    private final double[] line = new double[4];
    private final double[] shadow = new double[4];
    private final int[] side = new int[1];
    private final double[] normal = new double[3];

    void trace(double col, double row) {
      world.camera().ray(col, row, line);
      // The camera works above the ellipsoid, the world above the geoid.
      line[0] += World.UNDULATION * line[2];
      line[1] += World.UNDULATION * line[3];
      double h = terrain.meet(line, guess);
      guess = h;
      double e = line[0] + h * line[2];
      double n = line[1] + h * line[3];
      int[] near = world.blocksNear(e, n);
      int[] crowns = world.treesNear(e, n);
      Block hit = null;
      int hitSide = 0;
      double top = h - 0.02;
      if (near != null) {
        for (int i : near) {
          Block block = world.blocks().get(i);
          double at = block.meet(line, side);
          if (block.eaves() == 0 && block.covers(e, n, 0)) {
            hit = hit == null ? block : hit;
            hitSide = 3;
          } else if (at > top && block.eaves() > 0) {
            top = at;
            hit = block;
            hitSide = side[0];
          }
        }
      }
      Tree tree = null;
      if (crowns != null) {
        for (int i : crowns) {
          double at = world.trees().get(i).meet(line);
          if (at > top) {
            top = at;
            tree = world.trees().get(i);
          }
        }
      }
      if (tree != null) {
        double z = top;
        e = line[0] + z * line[2];
        n = line[1] + z * line[3];
        normal[0] = (e - tree.east()) / tree.radius();
        normal[1] = (n - tree.north()) / tree.radius();
        normal[2] = (z - tree.centre()) / tree.radius();
        double leaf = 1 + 0.25 * grainAt(e, n, 0.35);
        light(Material.CROWN, null, tree.tone() * leaf, e, n, z, near, crowns, tree, null);
      } else if (hit != null && hitSide < 3) {
        double z = top;
        e = line[0] + z * line[2];
        n = line[1] + z * line[3];
        roofOrWall(hit, hitSide, e, n, z, near, crowns);
      } else {
        terrainNormal(e, n);
        if (hit != null) {
          double stain = 1 + 0.05 * grainAt(e, n, 0.7) + 0.08 * smooth.at(e / 5, n / 5);
          light(hit.roof(), hit.tone(), stain, e, n, h, near, crowns, null, hit);
        } else {
          ground(e, n, h, near, crowns);
        }
      }
    }

    private void roofOrWall(
        Block block, int facet, double e, double n, double z, int[] near, int[] crowns) {
      if (facet == 2) {
        // Which wall: the one whose face is nearest.
        double u = (e - block.east()) * block.cos() + (n - block.north()) * block.sin();
        double v = -(e - block.east()) * block.sin() + (n - block.north()) * block.cos();
        boolean gable = block.length() / 2 - Math.abs(u) < block.width() / 2 - Math.abs(v);
        double nu = gable ? Math.signum(u) : 0;
        double nv = gable ? 0 : Math.signum(v);
        normal[0] = nu * block.cos() - nv * block.sin();
        normal[1] = nu * block.sin() + nv * block.cos();
        normal[2] = 0;
        light(Material.WALL, null, 0.9, e, n, z, near, crowns, null, block);
        return;
      }
      double pitch = block.ridge() / (block.width() / 2);
      double sign = facet == 0 ? 1 : -1;
      double scale = 1 / Math.sqrt(1 + pitch * pitch);
      normal[0] = -sign * pitch * block.sin() * scale;
      normal[1] = sign * pitch * block.cos() * scale;
      normal[2] = scale;
      double u = (e - block.east()) * block.cos() + (n - block.north()) * block.sin();
      double wear = 1 + 0.03 * grainAt(e, n, 0.6) + 0.05 * smooth.at(e / 3, n / 3);
      if (block.roof() == Material.METAL_ROOF) {
        wear += 0.03 * Math.sin(u * 2 * Math.PI / 1.1);
      } else if (block.roof() == Material.TURF_ROOF) {
        wear += 0.12 * grainAt(e, n, 0.5);
      }
      light(block.roof(), block.tone(), wear, e, n, z, near, crowns, null, block);
    }

    private void terrainNormal(double e, double n) {
      double gx = (terrain.height(e + 2, n) - terrain.height(e - 2, n)) / 4;
      double gy = (terrain.height(e, n + 2) - terrain.height(e, n - 2)) / 4;
      double scale = 1 / Math.sqrt(1 + gx * gx + gy * gy);
      normal[0] = -gx * scale;
      normal[1] = -gy * scale;
      normal[2] = scale;
    }

    private void ground(double e, double n, double h, int[] near, int[] crowns) {
      float shore = terrain.shore(e, n);
      double broad = smooth.at(e / 23, n / 23);
      double fine = grainAt(e, n, 0.5);
      double tone;
      Material material;
      if (shore <= 0) {
        normal[0] = 0;
        normal[1] = 0;
        normal[2] = 1;
        double foam = smooth.at(e / 7, n / 7) + 0.5 * smooth.at(e / 2.3, n / 2.3);
        if (shore > -0.006 && foam > 0.35) {
          material = Material.SURF;
          tone = 0.75 + 0.2 * fine * 0.5 + 0.2 * foam;
        } else {
          material = Material.SEA;
          double shallow = Math.exp(shore * 45);
          tone = 1 + 0.9 * shallow + 0.08 * smooth.at((e + n) / 4, (e - n) / 14) + 0.06 * fine;
        }
      } else if (world.markAt(e, n)) {
        material = Material.MARK;
        tone = 1;
      } else {
        float road = terrain.road(e, n);
        float outcrop = terrain.outcrop(e, n);
        float wet = terrain.wet(e, n);
        if (road < 2.7) {
          material = Material.ASPHALT;
          tone = 1 + 0.12 * broad + 0.05 * fine;
        } else if (road < 3.5) {
          material = Material.GRAVEL;
          tone = 0.85 + 0.1 * fine;
        } else if (shore < 0.006 + 0.004 * broad) {
          material = outcrop > 0.02 ? Material.SHINGLE : Material.SAND;
          tone = 0.8 + 20 * shore + 0.08 * fine;
        } else if (outcrop > 0.36) {
          material = wet > 0.05 ? Material.ROCK : Material.PALE_ROCK;
          tone = 0.85 + 0.5 * (outcrop - 0.36) + 0.14 * fine + 0.1 * broad;
        } else if (road < 60 && wet < 0.22) {
          double[] field = fieldAt(e, n);
          material = field[0] < 0.6 ? Material.GRASS : Material.HAY;
          tone = 0.8 + 0.4 * field[1] + 0.07 * Math.sin(field[2]) + 0.07 * fine + 0.06 * broad;
        } else {
          material = wet + 0.25 * broad > 0.08
              ? Material.MOOR
              : wet < -0.22 ? Material.HAY : Material.GRASS;
          tone = 0.95 + 0.3 * wet + 0.12 * fine + 0.15 * broad;
        }
      }
      light(material, null, tone, e, n, h, near, crowns, null, null);
    }

    /** A parcel of land: its cover, its tone, and the phase of its furrows. */
    private double[] fieldAt(double e, double n) {
      double u = e / 34 + 0.6 * smooth.at(e / 90, n / 90);
      double v = n / 52 + 0.6 * smooth.at(n / 90, e / 90);
      long i = (long) Math.floor(u);
      long j = (long) Math.floor(v);
      double turn = texture.at(i + 7, j) * Math.PI;
      double phase = (e * Math.cos(turn) + n * Math.sin(turn)) * 2 * Math.PI / 2.4;
      return new double[] {texture.at(i, j), texture.at(i, j + 900), phase};
    }

    private double grainAt(double e, double n, double size) {
      long x = (long) Math.floor((e - 500_000) / size);
      long y = (long) Math.floor((n - 6_690_000) / size);
      return grain[(int) (y & GRAIN - 1) * GRAIN + (int) (x + 37 * (y >> 9) & GRAIN - 1)];
    }

    /** Fills the signal: reflectance at the sensor times the sine of the sun's elevation, haze included. */
    private void light(
        Material material,
        float[] tone,
        double factor,
        double e,
        double n,
        double z,
        int[] near,
        int[] crowns,
        Tree ownTree,
        Block ownBlock) {
      double cosine = normal[0] * sun[0] + normal[1] * sun[1] + normal[2] * sun[2];
      boolean lit = cosine > 0 && !shaded(e, n, z, near, crowns, ownTree, ownBlock);
      double direct = lit ? cosine : 0;
      double sky = 0.5 + 0.5 * normal[2];
      for (int b = 0; b < Material.BANDS; b++) {
        double rho = material.reflectance[b] * factor * (tone == null ? 1 : tone[b]);
        double light = direct * DIRECT[b] + sky * skyLight[b];
        signal[b] = (float) (Math.max(0, rho) * light * (1 - HAZE[b]) + haze[b]);
      }
    }

    private boolean shaded(
        double e, double n, double z, int[] near, int[] crowns, Tree ownTree, Block ownBlock) {
      shadow[2] = sunRay[0];
      shadow[3] = sunRay[1];
      shadow[0] = e - z * shadow[2];
      shadow[1] = n - z * shadow[3];
      if (near != null) {
        for (int i : near) {
          Block block = world.blocks().get(i);
          if (block == ownBlock || block.eaves() == 0) {
            continue;
          }
          if (block.meet(shadow, side) > z + 0.05) {
            return true;
          }
        }
      }
      if (crowns != null) {
        for (int i : crowns) {
          Tree tree = world.trees().get(i);
          if (tree != ownTree && tree.meet(shadow) > z + 0.05) {
            return true;
          }
        }
      }
      return false;
    }
  }
}
