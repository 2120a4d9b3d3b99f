package sharpkestrel.demo.things;

import java.util.List;
import sharpkestrel.demo.light.Material;

/**
 * How people build in a region inland. Shares of things are 0 to 1.
 *
 * @param roofs what roofs are made of, {@code houses} how often on houses, {@code works} on halls and barns
 * @param flat share of houses with flat roofs, {@code hip} of the others with hips
 * @param pitch rise of the other roofs for a metre, at least and at most
 * @param eaves height of walls, metres, at least and at most
 * @param walls what walls are made of, and {@code wallShares}
 * @param plot square metres of a plot of a house, at least and at most
 * @param bound what parts plots, and {@code bounded} how many are parted so
 * @param pools in plots of houses; {@code solar} on roofs; {@code tanks} on flat ones; {@code crowns} of trees in a plot
 * @param paved yards and courts that are, and {@code clinker} how many of those with red bricks
 */
public record Taste(
    List<Material> roofs,
    double[] houses,
    double[] works,
    double flat,
    double hip,
    double[] pitch,
    double[] eaves,
    List<Material> walls,
    double[] wallShares,
    double[] plot,
    Material bound,
    double bounded,
    double pools,
    double solar,
    double tanks,
    double crowns,
    double paved,
    double clinker) {}
