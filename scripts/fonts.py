"""Makes the static fonts that the certificate embeds: instances of the text family (SIL Open Font License, see
assets/fonts/ATKINSON-OFL.txt) with the missing signs of our own symbols font merged in, under a name of their own.

Needs Debian's fonttools and python3-brotli. Run: python3 scripts/fonts.py VARIABLE.woff2 SYMBOLS_400.woff2 SYMBOLS_650.woff2
"""
import sys
from fontTools.ttLib import TTFont
from fontTools.varLib import instancer
from fontTools.merge import Merger

variable, light, strong = sys.argv[1:4]
for weight, symbols, name in ((420, light, "Regular"), (680, strong, "Bold")):
    font = instancer.instantiateVariableFont(TTFont(variable), {"wght": weight})
    font.flavor = None
    extra = TTFont(symbols)
    extra.flavor = None
    have = set(font.getBestCmap())
    for table in extra["cmap"].tables:
        for code in list(table.cmap):
            if code in have:
                del table.cmap[code]
    for one, path in ((font, "/tmp/upstand-text.ttf"), (extra, "/tmp/upstand-extra.ttf")):
        for tag in ("GSUB", "GPOS", "GDEF", "STAT", "DSIG", "HVAR", "MVAR", "avar", "fvar", "gvar"):
            if tag in one and (one is extra or tag in ("STAT", "DSIG", "HVAR", "MVAR", "avar", "fvar", "gvar")):
                del one[tag]
        one.save(path)
    if TTFont("/tmp/upstand-extra.ttf")["head"].unitsPerEm != font["head"].unitsPerEm:
        from fontTools.ttLib.scaleUpem import scale_upem
        scaled = TTFont("/tmp/upstand-extra.ttf")
        scale_upem(scaled, font["head"].unitsPerEm)
        scaled.save("/tmp/upstand-extra.ttf")
    merged = Merger().merge(["/tmp/upstand-text.ttf", "/tmp/upstand-extra.ttf"])
    for record in merged["name"].names:
        if record.nameID in (1, 16):
            record.string = "Upstand Print"
        elif record.nameID in (4,):
            record.string = f"Upstand Print {name}"
        elif record.nameID == 6:
            record.string = f"UpstandPrint-{name}"
        elif record.nameID in (2, 17):
            record.string = name
    merged.save(f"assets/fonts/UpstandPrint-{name}.ttf")
    print(name, len(merged.getBestCmap()), "signs")
