package sharpkestrel.place.match;

import java.util.ArrayList;
import java.util.List;
import org.bytedeco.javacpp.PointerScope;
import org.bytedeco.javacpp.indexer.UByteIndexer;
import org.bytedeco.opencv.global.opencv_core;
import org.bytedeco.opencv.opencv_core.DMatch;
import org.bytedeco.opencv.opencv_core.DMatchVectorVector;
import org.bytedeco.opencv.opencv_core.KeyPointVector;
import org.bytedeco.opencv.opencv_core.Mat;
import org.bytedeco.opencv.opencv_features2d.AffineFeature;
import org.bytedeco.opencv.opencv_features2d.BFMatcher;
import org.bytedeco.opencv.opencv_features2d.Feature2D;
import org.bytedeco.opencv.opencv_features2d.SIFT;
import sharpkestrel.raster.Histogram;
import sharpkestrel.raster.Job;
import sharpkestrel.raster.Raster;
import sharpkestrel.raster.Request;
import sharpkestrel.raster.Statistics;

/**
 * Features that look alike in two rasters, whatever turn and scale lies between them (SIFT; Lowe 2004, IJCV 60(2)). Many
 * of the pairs are wrong. For pictures taken from the side both are also looked at as if they leaned (ASIFT; Yu and Morel 2011, IPOL 1),
 * which takes some thirty times as long.
 */
final class Features {

  private static final int MOST = 7000;
  private static final int LONGEST_SIDE = 1800;

  /** The same where views from the side are looked at, too. */
  private static final int LONGEST_LEANING = 1000;

  /** Features of each view from the side. */
  private static final int MOST_LEANING = 600;

  /** Views that lean by {@code 2^(n/2)} are looked at, up to this n: 60 degrees. */
  private static final int LEANS = 2;

  /** The nearest descriptor must be nearer than the second nearest by this much. */
  private static final float RATIO = 0.86f;

  private Features() {}

  /** Places in both, in pixels of full size. */
  record Pair(double col, double row, double referenceCol, double referenceRow) {}

  static List<Pair> pairs(Raster scene, Raster reference, Job job) {
    return pairs(scene, reference, false, job);
  }

  /** Pairs whatever affine map lies between their surroundings, within some 60 degrees of leaning. */
  static List<Pair> leaningPairs(Raster scene, Raster reference, Job job) {
    return pairs(scene, reference, true, job);
  }

  private static List<Pair> pairs(Raster scene, Raster reference, boolean leaning, Job job) {
    try (PointerScope scope = new PointerScope()) {
      int longest = leaning ? LONGEST_LEANING : LONGEST_SIDE;
      int ours = level(scene, longest);
      int theirs = level(reference, longest);
      KeyPointVector here = new KeyPointVector();
      KeyPointVector there = new KeyPointVector();
      Mat one = described(scene, ours, leaning, here, job);
      Mat two = described(reference, theirs, leaning, there, job);
      List<Pair> pairs = new ArrayList<>();
      if (here.size() < 2 || there.size() < 2) {
        return pairs;
      }
      DMatchVectorVector matches = new DMatchVectorVector();
      new BFMatcher(opencv_core.NORM_L2, false).knnMatch(one, two, matches, 2);
      for (long i = 0; i < matches.size(); i++) {
        if (matches.get(i).size() < 2) {
          continue;
        }
        DMatch first = matches.get(i).get(0);
        DMatch second = matches.get(i).get(1);
        if (first.distance() < RATIO * second.distance()) {
          var a = here.get(first.queryIdx()).pt();
          var b = there.get(first.trainIdx()).pt();
          // features count from the middle of the first pixel
          pairs.add(new Pair(
              (a.x() + 0.5) * (1 << ours),
              (a.y() + 0.5) * (1 << ours),
              (b.x() + 0.5) * (1 << theirs),
              (b.y() + 0.5) * (1 << theirs)));
        }
      }
      return pairs;
    }
  }

  private static int level(Raster raster, int longest) {
    int level = 0;
    while (Math.max(raster.grid().width(), raster.grid().height()) >> level > longest) {
      level++;
    }
    return Math.min(level, raster.levels() - 1);
  }

  private static Mat described(
      Raster raster, int level, boolean leaning, KeyPointVector keys, Job job) {
    var window = raster.grid().atLevel(level).window();
    float[] pixels = raster.read(level, window, Request.BACKGROUND)[0];
    Histogram spread = Statistics.of(raster, level, job)[0].histogram();
    double low = spread.quantile(0.01);
    double high = spread.quantile(0.99);
    Mat grey = new Mat(window.height(), window.width(), opencv_core.CV_8UC1);
    Mat mask = new Mat(window.height(), window.width(), opencv_core.CV_8UC1);
    try (UByteIndexer tones = grey.createIndexer();
        UByteIndexer valid = mask.createIndexer()) {
      for (int y = 0; y < window.height(); y++) {
        for (int x = 0; x < window.width(); x++) {
          float v = pixels[y * window.width() + x];
          boolean known = !Float.isNaN(v);
          double tone = known ? (v - low) / (high - low) : 0;
          tones.put(y, x, (int) (255 * Math.max(0, Math.min(1, tone))));
          valid.put(y, x, known ? 255 : 0);
        }
      }
    }
    Mat descriptors = new Mat();
    SIFT plain = SIFT.create(leaning ? MOST_LEANING : MOST, 3, 0.02, 12, 1.6, false);
    Feature2D features =
        leaning ? AffineFeature.create(plain, LEANS, 0, (float) Math.sqrt(2), 72) : plain;
    features.detectAndCompute(grey, mask, keys, descriptors, false);
    return descriptors;
  }
}
