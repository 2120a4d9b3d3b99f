package sharpkestrel.place.mosaic;

import java.util.Optional;
import sharpkestrel.geo.OutlineSet;
import sharpkestrel.step.In;
import sharpkestrel.step.Setting;

/** What seams must keep clear of. */
public record Seamlines(
    @In(
        does = "Outlines, such as those of buildings, that no seam may cut.",
        optional = true,
        ofPlace = true)
    Optional<OutlineSet> keepWhole,

    @Setting(
        label = "Clearance",
        does =
            "How far seams keep from those outlines where they can: as far as tall things lean in the scenes and the"
                + " outlines may be off.",
        unit = "m",
        min = 0,
        max = 500,
        initial = "8")
    double clearance) {}
