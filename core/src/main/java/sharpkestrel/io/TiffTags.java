package sharpkestrel.io;

/** Tag numbers: TIFF 6.0, its technical notes, OGC GeoTIFF 1.1, and the community's for RPC, no-data and items. */
final class TiffTags {

  static final int SUBFILE_TYPE = 254;
  static final int WIDTH = 256;
  static final int HEIGHT = 257;
  static final int BITS = 258;
  static final int COMPRESSION = 259;
  static final int PHOTOMETRIC = 262;
  static final int DESCRIPTION = 270;
  static final int STRIP_OFFSETS = 273;
  static final int SAMPLES = 277;
  static final int ROWS_PER_STRIP = 278;
  static final int STRIP_BYTES = 279;
  static final int PLANAR = 284;
  static final int PREDICTOR = 317;
  static final int TILE_WIDTH = 322;
  static final int TILE_HEIGHT = 323;
  static final int TILE_OFFSETS = 324;
  static final int TILE_BYTES = 325;
  static final int EXTRA_SAMPLES = 338;
  static final int SAMPLE_FORMAT = 339;
  static final int JPEG_TABLES = 347;
  static final int COLOUR_MAP = 320;
  static final int PIXEL_SCALE = 33550;
  static final int TIE_POINTS = 33922;
  static final int TRANSFORMATION = 34264;
  static final int GEO_KEYS = 34735;
  static final int GEO_DOUBLES = 34736;
  static final int GEO_ASCII = 34737;
  static final int ITEMS = 42112;
  static final int NO_DATA = 42113;
  static final int RPC = 50844;

  private TiffTags() {}
}
