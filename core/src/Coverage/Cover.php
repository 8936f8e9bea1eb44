<?php

declare(strict_types=1);

namespace CrispReel\Core\Coverage;

use CrispReel\Core\Camera\CameraPose;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Camera\ShotSize;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Subjects;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Framing;

/** Covers an action: set-ups are made and looked at once, then each style cuts among them at once. */
final class Cover
{
    private readonly Action $action;

    /** @var list<Candidate> */
    public readonly array $candidates;

    private readonly Watch $watch;

    /** @param  list<string>  $people  performers who take part */
    public function __construct(
        private readonly CompiledScene $scene, AssetSource $assets, Memory $memory, array $people, int $from, int $to, Gate $gate,
    ) {
        $this->action = Action::of($scene, $assets, $people, $from, $to);
        $stands = [];
        $at = static function (int $frame) use (&$stands, $scene, $assets, $memory, $gate): Stand {
            return $stands[$frame] ??= new Stand($scene, $assets, $memory, max(0, min($scene->frames - 1, $frame)), $gate);
        };
        $where = (new Subjects($scene->poses, $scene->document, $assets, $memory))->where($scene->frames);
        $made = (new Candidates($this->action, $at, $where))->all();
        $this->candidates = $made === [] ? [] : [...$made, ...self::kept($scene, $this->action)];
        $this->watch = Watch::over($this->candidates, $this->action, $at, $gate);
    }

    /** @return list<Candidate> shots that are to stay, as far as they lie in the span */
    private static function kept(CompiledScene $scene, Action $action): array
    {
        $out = [];
        foreach ($scene->shots as $shot) {
            [$from, $to] = [max($shot->in, $action->from), min((int) $shot->out, $action->to)];
            if (! $shot->kept || $to <= $from) {
                continue;
            }
            $framing = new Framing('', $shot->camera, $action->people[0], frame: $from);
            foreach ($scene->document->framings as $f) {
                $framing = $f->camera === $shot->camera && $f->frame <= $from ? $f : $framing;
            }
            $out[] = new Candidate(
                $framing->kind === 'together' ? 'two' : 'single', "Shot {$shot->label}", $framing, new KeptCamera($scene, $shot->camera),
                [$framing->subject], (float) ShotSize::number($framing->size), $from, $to, $shot->camera,
            );
        }

        return $out;
    }

    /** @return list<array{from: int, to: int, candidate: Candidate, view: CameraPose}> shots of a first cut, each as it is in its middle */
    public function cut(string $style): array
    {
        if ($this->candidates === []) {
            return [];
        }
        $out = [];
        $perSecond = $this->scene->document->rate->perSecond();
        $maker = new FirstCut($this->action, $this->candidates, $this->costs($style), Style::named($style), $perSecond);
        foreach ($maker->shots() as [$from, $to, $k]) {
            $c = $this->candidates[$k];
            $out[] = ['from' => $from, 'to' => $to, 'candidate' => $c, 'view' => $c->camera->at(intdiv($from + $to, 2))];
        }

        return $out;
    }

    /**
     * What is to be known of a cut: how much of their lines those who speak are seen, and what breaks a rule.
     *
     * @param  list<array{from: int, to: int, candidate: Candidate, view: CameraPose}>  $cut
     * @return array{seen: float, crossings: int, jumps: int, shortest: int}
     */
    public function facts(string $style, array $cut): array
    {
        $costs = $this->costs($style);
        $number = fn (array $shot): int => (int) array_search($shot['candidate'], $this->candidates, true);
        $crossings = $jumps = $spoken = $seen = 0;
        foreach ($cut as $i => $shot) {
            $k = $number($shot);
            if ($i > 0) {
                $p = $number($cut[$i - 1]);
                $crosses = $costs->crosses($p, $k, $shot['from']);
                $crossings += $crosses ? 1 : 0;
                $jumps += ! $crosses && $costs->cut($p, $k, $shot['from']) >= CutCosts::JUMP ? 1 : 0;
            }
            for ($f = $shot['from']; $f < $shot['to']; $f += 4) {
                $speaker = $this->action->speaker($f);
                $spoken += $speaker === null ? 0 : 1;
                $seen += $speaker !== null && $this->watch->of($k, $f, $speaker)[1] < 1.5 ? 1 : 0;
            }
        }

        return [
            'seen' => $spoken === 0 ? 1.0 : $seen / $spoken, 'crossings' => $crossings, 'jumps' => $jumps,
            'shortest' => min([PHP_INT_MAX, ...array_map(static fn (array $s): int => $s['to'] - $s['from'], $cut)]),
        ];
    }

    /**
     * A cut as edit commands: a camera for each set-up that is used, and the reel laid anew but for what is kept.
     *
     * @param  list<array{from: int, to: int, candidate: Candidate, view: CameraPose}>  $cut
     * @return list<Command>
     */
    public static function commands(array $cut): array
    {
        $out = $names = [];
        /** @var list<array{from: int, to: int, shots: list<array{camera: string, in: int}>}> $runs */
        $runs = [];
        $isOpen = false;
        foreach ($cut as $shot) {
            $c = $shot['candidate'];
            if ($c->kept !== null) {
                $isOpen = false;

                continue;
            }
            $key = spl_object_id($c);
            if (! isset($names[$key])) {
                $names[$key] = '$cover'.count($names);
                $framing = array_diff_key($c->framing->toArray(), ['id' => 0, 'camera' => 0]);
                $out[] = new Command('camera.frame', ['as' => $names[$key], 'name' => $c->title] + $framing);
            }
            $run = $isOpen ? array_pop($runs) : null;
            $runs[] = [
                'from' => $run['from'] ?? $shot['from'], 'to' => $shot['to'],
                'shots' => [...($run['shots'] ?? []), ['camera' => $names[$key], 'in' => $shot['from']]],
            ];
            $isOpen = true;
        }

        return [...$out, ...array_map(static fn (array $run): Command => new Command('reel.lay', $run), $runs)];
    }

    private function costs(string $style): CutCosts
    {
        $perSecond = $this->scene->document->rate->perSecond();

        return new CutCosts($this->action, $this->candidates, $this->watch, Style::named($style), $perSecond);
    }
}
