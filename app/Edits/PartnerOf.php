<?php

declare(strict_types=1);

namespace App\Edits;

use App\Exceptions\UserError;
use App\Models\Asset;
use CrispReel\Core\Compile\Approach;
use CrispReel\Core\Compile\Nearby;
use CrispReel\Core\Kit\Motions\MotionKit;
use Illuminate\Support\Facades\DB;
use stdClass;

/** With whom somebody does what takes two. */
final readonly class PartnerOf
{
    /** Metres over which somebody throws to somebody. */
    private const THROWS = [1.6, 5.0];

    public function __construct(private EditContext $scene)
    {
    }

    /**
     * @param  mixed  $wanted  a performer, or "near"
     * @return object{item: stdClass, motion: Asset, comes: int, gap: float|null, side: int}|null the other, their half, frames that they
     *   take to come, how far apart they stand where they may as they do, and on which side they are, 1 left; null where the motion is
     *   no half, or nobody is near
     */
    public function find(stdClass $item, Asset $motion, mixed $wanted, ?int $start): ?object
    {
        $slug = MotionKit::otherHalf((string) $motion->slug);
        if ($slug === null || $motion->production_id !== null) {
            return null;
        }
        $compiled = $this->scene->compiled();
        $frame = (float) ($start ?? min($compiled->frames, ($compiled->lanes["i{$item->id}"] ?? null)?->end(false) ?? 0.0));
        if ($wanted === 'near') {
            $near = Nearby::to($compiled, "i{$item->id}", $frame);
            $other = $near === null ? null : DB::table('items')->find((int) substr($near, 1));
        } else {
            $other = $this->scene->find('items', $wanted);
        }
        if (! $other instanceof stdClass) {
            return null;
        }
        if ($other->kind !== 'performer' || (int) $other->id === (int) $item->id) {
            throw new UserError('pair.partner', "\"{$other->name}\" cannot do that with \"{$item->name}\".", 'Choose another performer.');
        }
        [$ax, $az, $facing] = Nearby::stands($compiled, "i{$item->id}", $frame);
        [$bx, $bz] = Nearby::stands($compiled, "i{$other->id}", $frame);
        $apart = hypot($bx - $ax, $bz - $az);
        $gap = $slug === 'throw-to-a' || $slug === 'throw-to-b' ? max(self::THROWS[0], min(self::THROWS[1], $apart)) : null;
        $metres = max(0.0, $apart - ($gap ?? 0.8));

        return (object) [
            'item' => $other, 'motion' => $this->scene->asset($slug),
            'gap' => $gap, 'side' => ($bx - $ax) * cos($facing) - ($bz - $az) * sin($facing) < 0.0 ? -1 : 1,
            'comes' => Approach::frames($metres + 0.3, 40.0, $compiled->document->rate->perSecond()),
        ];
    }
}
