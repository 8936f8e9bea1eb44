<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile\Passes;

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Pass;
use CrispReel\Core\Compile\Utterance;
use CrispReel\Core\Compile\Utterances;
use CrispReel\Core\Compile\WordLooks;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Mend;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Speech\Script;

/** When each line begins and how it is read, and what is odd about that. */
final class Lines implements Pass
{
    private Draft $draft;

    public function settle(Draft $draft): void
    {
        $this->draft = $draft;
        $all = Utterances::of($draft->document, $draft->assets, $draft->memory);
        $draft->putUtterances($all);
        $this->note($all);
    }

    /** @param  list<Utterance>  $all  by their beginnings */
    private function note(array $all): void
    {
        $items = $this->draft->document->items;
        foreach ($all as $k => $u) {
            $name = $items[$u->line->item]->name;
            $unknown = $this->unknown($u);
            if ($unknown !== null) {
                $this->draft->note(new Finding(
                    'line.unknown', Severity::Fyi,
                    "{$name} says \"".self::short($u)."\": nobody knows what [{$unknown}] is; it changes nothing.",
                    remedy: 'In brackets stand pauses ([1.5 s]), '.implode(', ', Script::DOES)
                        .', look and a name or away, up, down, left, right, back, and motions by their names.', about: [$u->line->id],
                    frames: [(int) $u->start, (int) ceil($u->end)],
                ));
            }
            foreach (array_slice($all, $k + 1) as $next) {
                if ($next->line->item === $u->line->item && $next->from < $u->to - 0.5) {
                    $this->draft->note(self::twice($name, $u, $next));
                    break;
                }
            }
        }
    }

    /** What a line asks for in brackets and nobody can do; null: nothing. */
    private function unknown(Utterance $u): ?string
    {
        $motions = [];
        foreach ($this->draft->document->assets as $a) {
            $motions[] = $a->kind === 'motion' ? mb_strtolower($a->name) : '';
        }
        foreach (Script::does($u->line->text) as [$do]) {
            $look = Script::look($do);
            $known = $look === null
                ? in_array($do, [...Script::DOES, ...$motions], true)
                : in_array($look, ['away', 'up', 'down', 'left', 'right', 'back'], true)
                    || WordLooks::named($this->draft->document, $look, $u->line->item) !== null;
            if (! $known) {
                return $do;
            }
        }

        return null;
    }

    private static function twice(string $name, Utterance $one, Utterance $other): Finding
    {
        $to = min($one->to, $other->to);

        return new Finding(
            'line.twice', Severity::Look, sprintf(
                '%s says two lines at once for %.1f s: "%s" and "%s".', $name, ($to - $other->from) / $one->perSecond, self::short($one),
                self::short($other),
            ),
            about: [$one->line->id, $other->line->id], frames: [(int) $other->from, (int) ceil($to)],
            mends: [new Mend('Say it after the first', [
                Command::of('line.set', line: $other->line->id, after: $one->line->id, pause: 0.4),
            ])],
        );
    }

    private static function short(Utterance $u): string
    {
        return mb_strimwidth(Script::heard($u->line->text), 0, 36, '…');
    }
}
