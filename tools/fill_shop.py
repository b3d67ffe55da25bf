"""Puts many finished jobs of made-up people into a shop's database, for cargo xtask bench: fill_shop.py SHOP.DB COUNT."""

import json
import random
import sqlite3
import sys

NAMES = ["Ilsabet Moor", "Osk Lindvall", "Maud Ferrar", "Wendolin Aas", "Tam Quillfeather", "Brid Hallow"]
DEVICES = ["Quillon Tern 15 laptop", "Brannoc Deck console", "Vennick Lume 3 phone", "Merle speaker"]
STOPS = ["78.00", "34 joints", "SAC305", "Air from below", "open, about 42 s", "moved at 43 s", "34 firm", "given back"]


def main() -> None:
    database, count = sys.argv[1], int(sys.argv[2])
    draw = random.Random(4)
    shop = sqlite3.connect(database)
    boards = shop.execute("SELECT id, model_id FROM boards ORDER BY id").fetchall()
    for number in range(1, count + 1):
        board, model = boards[number % len(boards)]
        name, device = draw.choice(NAMES), draw.choice(DEVICES)
        facts = {
            "intake_missing": 0, "board": True, "alloy": True, "method": True, "window": "open", "run": "Done",
            "pins": "Sound", "handed_over": True, "waits_for": "", "due_in_days": None,
        }
        summary = json.dumps({
            "device": device, "customer": name, "connector": "USB-C port, top mount", "board": board,
            "due": "2026-01-05", "facts": facts, "figures": STOPS,
        })
        low, mid, high = 30.0, 40.0, 55.0
        actual = draw.gauss(42.0, 9.0)
        moment = 1_700_000_000_000 + number * 60_000
        shop.execute("INSERT INTO jobs (id, taken_in_ms, board_id) VALUES (?, ?, ?)", (number, moment, board))
        fields = [("customer", name), ("device", device), ("serial", f"S{number:06}"), ("price", "78.00")]
        shop.executemany("INSERT INTO intake VALUES (?, ?, ?, ?)", [(number, key, value, moment) for key, value in fields])
        shop.execute(
            "INSERT INTO job_index (job_id, open, model_id, device, summary, low_s, mid_s, high_s, actual_s, within)"
            " VALUES (?, 0, ?, ?, ?, ?, ?, ?, ?, ?)",
            (number, model, device, summary, low, mid, high, actual, int(low <= actual <= high)),
        )
        shop.execute("INSERT INTO job_search (rowid, words) VALUES (?, ?)", (number, f"{name} {device} S{number:06} {number}"))
        shop.execute("UPDATE jobs SET handed_over_ms = ? WHERE id = ?", (moment + 3_600_000, number))
    shop.commit()
    print(f"{count} finished jobs in {database}")


main()
