"""Times LibreOffice Calc as it recalculates the two clocks of a list of vehicles, headless.

Each row is a vehicle: last reading, its date, yearly distance, for each of eight items the reading and date of its
renewal; then for each the day it is due, MIN(last date + km left / rate, EDATE(renewal, months)); in the end the earliest of them.
Prints the median of several recalculations in milliseconds. Usage: /usr/bin/python3 bench/calc.py ROWS
"""

import random
import statistics
import subprocess
import sys
import tempfile
import time

import uno
from com.sun.star.beans import PropertyValue
from com.sun.star.sheet.FillDirection import TO_BOTTOM

ROWS = int(sys.argv[1])
ITEMS = 8
PIPE = f"knollfield{random.randrange(10**9)}"


def column(n):
    return chr(65 + n) if n < 26 else chr(64 + n // 26) + chr(65 + n % 26)


def connect():
    local = uno.getComponentContext()
    resolver = local.ServiceManager.createInstanceWithContext("com.sun.star.bridge.UnoUrlResolver", local)
    for _ in range(120):
        try:
            return resolver.resolve(f"uno:pipe,name={PIPE};urp;StarOffice.ComponentContext")
        except Exception:
            time.sleep(0.5)
    raise SystemExit("LibreOffice does not answer")


with tempfile.TemporaryDirectory() as profile:
    office = subprocess.Popen(
        ["soffice", "--headless", "--norestore", f"-env:UserInstallation=file://{profile}", f"--accept=pipe,name={PIPE};urp"],
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
    )
    try:
        context = connect()
        desktop = context.ServiceManager.createInstanceWithContext("com.sun.star.frame.Desktop", context)
        hidden = PropertyValue()
        hidden.Name, hidden.Value = "Hidden", True
        document = desktop.loadComponentFromURL("private:factory/scalc", "_blank", 0, (hidden,))
        sheet = document.Sheets.getByIndex(0)
        document.enableAutomaticCalculation(False)
        dice = random.Random(7)
        rows = []
        for _ in range(ROWS):
            rate = max(3000, dice.gauss(20000, 7000))
            line = [160000.0, 46350.0, rate]
            for _ in range(ITEMS):
                months = dice.randrange(6, 76)
                line += [max(0.0, 160000 - rate * months / 12), 46350.0 - round(months * 30.44)]
            rows.append(tuple(line))
        given = len(rows[0])
        sheet.getCellRangeByPosition(0, 0, given - 1, ROWS - 1).setDataArray(tuple(rows))
        for i in range(ITEMS):
            km, day = column(3 + 2 * i), column(4 + 2 * i)
            sheet.getCellByPosition(given + i, 0).Formula = (
                f"=MIN($B1+(120000-($A1-{km}1))/$C1*365.25;EDATE({day}1;72))"
            )
        end = given + ITEMS
        sheet.getCellByPosition(end, 0).Formula = f"=MIN({column(given)}1:{column(end - 1)}1)"
        sheet.getCellRangeByPosition(given, 0, end, ROWS - 1).fillAuto(TO_BOTTOM, 1)
        times = []
        for _ in range(5):
            begin = time.perf_counter()
            document.calculateAll()
            times.append(1000 * (time.perf_counter() - begin))
        last = sheet.getCellByPosition(end, ROWS - 1).Value
        if not 40000 < last < 60000:
            raise SystemExit(f"the sheet does not calculate: {last}")
        print(f"{statistics.median(times[1:]):.3f}")
        document.close(True)
        try:
            desktop.terminate()
        except Exception:
            pass
        office.wait(20)
    finally:
        if office.poll() is None:
            office.kill()
