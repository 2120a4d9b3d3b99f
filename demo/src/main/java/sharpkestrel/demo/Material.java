package sharpkestrel.demo;

/** Surfaces and their reflectance in the sensor's bands: violet, blue, green, red, red edge, near infrared. */
enum Material {
  SEA(0.055, 0.052, 0.042, 0.022, 0.014, 0.008),
  SURF(0.44, 0.45, 0.44, 0.42, 0.37, 0.32),
  SHINGLE(0.17, 0.19, 0.22, 0.24, 0.26, 0.27),
  SAND(0.19, 0.22, 0.28, 0.33, 0.36, 0.38),
  GRASS(0.030, 0.038, 0.078, 0.048, 0.24, 0.40),
  HAY(0.060, 0.080, 0.128, 0.140, 0.25, 0.34),
  MOOR(0.036, 0.045, 0.064, 0.070, 0.15, 0.22),
  ROCK(0.15, 0.17, 0.20, 0.22, 0.235, 0.245),
  PALE_ROCK(0.27, 0.30, 0.335, 0.355, 0.365, 0.37),
  ASPHALT(0.082, 0.088, 0.094, 0.098, 0.103, 0.108),
  GRAVEL(0.16, 0.18, 0.215, 0.24, 0.255, 0.265),
  CONCRETE(0.26, 0.285, 0.315, 0.33, 0.34, 0.345),
  CROWN(0.020, 0.026, 0.048, 0.030, 0.20, 0.37),
  WALL(0.34, 0.37, 0.40, 0.41, 0.42, 0.42),
  TURF_ROOF(0.034, 0.044, 0.080, 0.062, 0.20, 0.33),
  SLATE_ROOF(0.088, 0.094, 0.099, 0.099, 0.103, 0.107),
  METAL_ROOF(0.385, 0.405, 0.415, 0.410, 0.405, 0.395),
  FILM(0.33, 0.35, 0.38, 0.37, 0.43, 0.47),
  MARK(0.75, 0.76, 0.77, 0.77, 0.77, 0.76);

  static final int BANDS = 6;

  final float[] reflectance;

  Material(double... reflectance) {
    this.reflectance = new float[BANDS];
    for (int b = 0; b < BANDS; b++) {
      this.reflectance[b] = (float) reflectance[b];
    }
  }
}
