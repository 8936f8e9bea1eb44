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
    public function __construct(private EditContext $scene)
    {
    }

    /**
     * @param  mixed  $wanted  a performer, or "near"
     * @return object{item: stdClass, motion: Asset, comes: int}|null the other, their half, and frames that they take to come; null
     *                                                                where the motion is no half, or nobody is near
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
        [$ax, $az] = Nearby::stands($compiled, "i{$item->id}", $frame);
        [$bx, $bz] = Nearby::stands($compiled, "i{$other->id}", $frame);
        $metres = max(0.0, hypot($bx - $ax, $bz - $az) - 0.8);

        return (object) [
            'item' => $other, 'motion' => $this->scene->asset($slug),
            'comes' => Approach::frames($metres + 0.3, 40.0, $compiled->document->rate->perSecond()),
        ];
    }
}
