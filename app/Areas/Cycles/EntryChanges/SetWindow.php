<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\EntryChanges;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;

/**
 * Gives entries a time before which, or from which on, they are held; without both the window is taken off.
 */
final readonly class SetWindow implements EntryChange
{
    /**
     * @param  ?Carbon  $notBefore inclusive
     * @param  ?Carbon  $notAfter  exclusive
     */
    public function __construct(private ?Carbon $notBefore, private ?Carbon $notAfter) {}

    public function apply(EntryChangeContext $context): string
    {
        [$from, $until] = [$this->notBefore, $this->notAfter];
        if (null !== $from && null !== $until && $from >= $until) {
            throw ValidationException::withMessages(['changes.not_after' => 'The window would end before it begins.']);
        }
        $window = ['not_before' => $from, 'not_after' => $until, 'updated_at' => Carbon::now()];
        DB::table('entries')->whereIn('id', $context->ids())->update($window);
        $entries = EntryChangeContext::count($context->entries->count());

        return null === $from && null === $until ? "Took the window off {$entries}" : "Gave a window to {$entries}";
    }
}
