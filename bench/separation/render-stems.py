#!/usr/bin/python3
"""The parts that the corpus's songs are mixed of, at the level they have in the mix:
    render-stems.py CORPUS OUT        (CORPUS: the folder of make_corpus.py)
Writes OUT/NAME.{mix,drums,bass,voice,guitars}.wav, 44.1 kHz, two channels, floats. "voice" is the melody: nobody sings in
these songs. A loud master is left out, since no part survives a limiter as it was."""
import math, os, sys
import multiprocessing as mp

corpus, out = sys.argv[1], sys.argv[2]
sys.path.insert(0, corpus)
import numpy as np, soundfile as sf
import benchlib as B, make_corpus as M, synth as S

PARTS = {'drums': 'd', 'bass': 'b', 'voice': 'm', 'guitars': 'g'}


def guitars(case, take1, take2, dur):
    """As `synth.mix` places them."""
    L = {**S.LEVELS[case['mix']], **case.get('levels', {})}
    g1 = S.amp(S.guitar_bus(take1, case, case['seed'], dur), case['amp'], case['seed'])
    g1 = g1 / S.active_rms(g1) * S.db(L['g'])
    bus = np.zeros((len(g1), 2))
    if take2 is None:
        bus += (g1 * 0.9)[:, None]
    else:
        g2 = S.amp(S.guitar_bus(take2, case, case['seed'] + 5000, dur), case['amp'], case['seed'] + 5000)
        g2 = g2 / S.active_rms(g2) * S.db(L['g'] - (2 if case.get('double') == 'octave' else 0))
        p = case.get('width', 0.75)
        a, b = math.cos((1 - p) * math.pi / 4), math.sin((1 - p) * math.pi / 4)
        bus[:, 0] += g1 * a + g2 * b
        bus[:, 1] += g1 * b + g2 * a
    return S.room(bus, case['seed']) if case.get('room', True) else bus


def render(case):
    truth, take1, take2, tm, bars, dur = M.build(case)
    L = {**S.LEVELS[case['mix']], **case.get('levels', {})}
    parts = {'g': guitars(case, take1, take2, dur)}
    if case['mix'] != 'solo':
        raw = {
            'b': S.bass_stem(take1, case, case['seed'], dur),
            'd': S.drum_stem(bars, case, tm, case['seed'], dur),
            'm': S.melody_stem(bars, case, tm, B.bar_quarters(case['meter']), case['seed'], dur),
        }
        for k, x in raw.items():
            if x is not None:
                x = x / S.active_rms(x) * S.db(L[k])
                parts[k] = x if x.ndim == 2 else np.repeat(x[:, None], 2, axis=1)
    mix = sum(parts.values())
    scale = 0.85 / np.abs(mix).max()
    for name, k in PARTS.items():
        if k in parts:
            sf.write(f"{out}/{case['name']}.{name}.wav", parts[k] * scale, S.SR, subtype='FLOAT')
    sf.write(f"{out}/{case['name']}.mix.wav", mix * scale, S.SR, subtype='FLOAT')
    return case['name']


if __name__ == '__main__':
    os.makedirs(out, exist_ok=True)
    cases = M.load('dev')
    # The levels of the instruments are measured once, before the processes part.
    for f, p in {tuple(c['guitar'].split(':')) for c in cases if ':' in c['guitar']} | {tuple(c.get('bass', 'fluid:33').split(':')) for c in cases if c['mix'] != 'solo'}:
        S.calibrate(f, int(p))
    for f in {c['guitar'].split(':')[0] for c in cases if ':' in c['guitar']}:
        S.calibrate(f, 28)
    with mp.Pool(2) as pool:
        for name in pool.imap_unordered(render, cases):
            print(name, flush=True)
