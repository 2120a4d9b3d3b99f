package sharpkestrel.demo.things;

import java.util.List;

/** What lasts, some years later, and what was changed until then. */
public record Changed(Things lasting, List<Change> changes) {}
