<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use Closure;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Beat;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Meeting\Meeting;
use CrispReel\Core\Meeting\Meetings;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Rig\Figure;

/** Halves of motions of two people, solved for the two who play them: their hands meet on drawn skin, whatever their heights. */
final readonly class PairTables
{
    /** @param  Closure(Item): (Figure|null)  $figures */
    public function __construct(private Document $document, private AssetSource $assets, private Closure $figures, private Memory $memory)
    {
    }

    /** The beat of another performer that one is tied to, or that is tied to it. */
    public static function partner(Document $document, Beat $beat): ?Beat
    {
        foreach ($document->beats as $b) {
            if ($b->item !== $beat->item && ($b->id === $beat->play->with || $b->play->with === $beat->id)) {
                return $b;
            }
        }

        return null;
    }

    /**
     * The half that a performer plays, where it is one of a pair that touches.
     *
     * @return array{ClipTable, string, float}|null table, key, metres that the worst hand misses its place by
     */
    public function half(Beat $beat, Item $item, Figure $figure, MotionTables $motions): ?array
    {
        $with = self::partner($this->document, $beat);
        $own = $motions->recipeOf($beat);
        $theirs = $with === null ? null : $motions->recipeOf($with);
        if ($with === null || $own === null || $theirs === null || $with->play->mirror !== $beat->play->mirror) {
            return null;
        }
        [$pair, $half] = Meetings::half($own);
        [$also, $other] = Meetings::half($theirs);
        $partner = $this->document->items[$with->item];
        $its = ($this->figures)($partner);
        if ($pair === '' || $pair !== $also || $half === $other || $its === null || ! $its->isHuman() || ! $figure->isHuman()) {
            return null;
        }
        [[$first, $fa, $ra], [$second, $fb, $rb]] = $half === 'A'
            ? [[$item, $figure, $own], [$partner, $its, $theirs]]
            : [[$partner, $its, $theirs], [$item, $figure, $own]];
        // The first sets the pace of both.
        $pace = $ra->number('pace', 1.0);
        $rb = $rb->with(['pace' => $pace]);
        [$ta, $ka] = $motions->kept($ra, $fa);
        [$tb, $kb] = $motions->kept($rb, $fb);
        $key = hash('sha256', json_encode(
            [Meeting::VERSION, $ka, $kb, sprintf('%.5f %.5f', $first->scale, $second->scale), Meetings::all()[$pair]],
            JSON_THROW_ON_ERROR,
        ));
        $bytes = $this->assets->solved("{$key}-{$half}");
        if ($bytes === null) {
            $skins = new Skins($this->document, $this->assets, $this->memory);
            [$solvedA, $solvedB, $miss] = Meeting::solve(
                [$fa, $skins->of($first, $fa), $ta, $first->scale],
                [$fb, $skins->of($second, $fb), $tb, $second->scale],
                Meetings::all()[$pair],
                max(0.5, min(2.0, $pace)),
            );
            foreach (['A' => $solvedA, 'B' => $solvedB] as $of => $table) {
                $this->assets->keep("{$key}-{$of}", pack('g', $miss).$table->toBytes());
            }
            $bytes = $this->assets->solved("{$key}-{$half}") ?? pack('g', $miss).($half === 'A' ? $solvedA : $solvedB)->toBytes();
        }
        $table = $this->memory->of("clip {$key}-{$half}", static fn (): ClipTable => ClipTable::fromBytes(substr($bytes, 4)));
        $miss = unpack('g', $bytes);

        return [$table, "{$key}-{$half}", is_array($miss) && is_float($miss[1]) ? $miss[1] : 0.0];
    }
}
