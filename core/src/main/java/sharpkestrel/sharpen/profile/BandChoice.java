package sharpkestrel.sharpen.profile;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * Three bands, and how well they tell profiles apart.
 *
 * @param bands places of the bands, ascending
 * @param worst Jeffries-Matusita distance of the pair that is told apart least
 * @param mean of all pairs
 */
public record BandChoice(int[] bands, double worst, double mean) {

  /** All choices of three bands, those first that tell the most alike pair apart best. */
  public static List<BandChoice> rank(List<Profile> profiles, int bandCount, double grain) {
    List<BandChoice> choices = new ArrayList<>();
    for (int a = 0; a < bandCount; a++) {
      for (int b = a + 1; b < bandCount; b++) {
        for (int c = b + 1; c < bandCount; c++) {
          choices.add(of(profiles, new int[] {a, b, c}, grain));
        }
      }
    }
    choices.sort(Comparator.comparingDouble(BandChoice::worst)
        .thenComparingDouble(BandChoice::mean)
        .reversed());
    return choices;
  }

  private static BandChoice of(List<Profile> profiles, int[] bands, double grain) {
    double worst = 2;
    double sum = 0;
    int pairs = 0;
    for (int i = 0; i < profiles.size(); i++) {
      for (int j = i + 1; j < profiles.size(); j++) {
        double apart =
            Separability.jeffriesMatusita(profiles.get(i), profiles.get(j), bands, grain);
        worst = Math.min(worst, apart);
        sum += apart;
        pairs++;
      }
    }
    return new BandChoice(bands, worst, pairs == 0 ? 0 : sum / pairs);
  }
}
