<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Setup\Data\CapacityResult;
use LucidStep\App\Areas\Setup\Queries\SetupState;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Planning\CapacityLine;
use LucidStep\Core\Planning\CapacityList;

/**
 * Takes people's time from a list: how much a day is as the last line of somebody says, days off come to those that are there.
 */
final readonly class ImportCapacity
{
    /** So many days off a person has at most, as when they are written by hand. */
    private const MOST_DAYS = 400;

    public function __construct(private SaveCalendar $calendar) {}

    /**
     * @throws ValidationException when there is no line, or there are too many
     * @return list<CapacityResult> what became of each line
     */
    public function __invoke(Project $project, string $text): array
    {
        $lines = CapacityList::read($text);
        if ([] === $lines || \count($lines) > CapacityList::MOST) {
            throw ValidationException::withMessages([
                'text' => [] === $lines ? 'Write at least one line.' : 'At most ' . number_format(CapacityList::MOST) . ' lines at once.',
            ]);
        }

        return Transactions::run(function () use ($project, $lines): array {
            // What is added to must not change meanwhile.
            $members = Membership::query()->where('project_id', $project->id)->with('user')->orderBy('id')->lockForUpdate()->get();
            /** @var array<string, array{member: Membership, minutes: int, days: list<string>}> $changes */
            $changes = [];
            $results = [];
            foreach ($lines as $line) {
                $found = self::found($members, $line);
                if (!($found instanceof Membership)) {
                    $results[] = CapacityResult::refused($line, $found);

                    continue;
                }
                $before = $changes[$found->id] ?? ['member' => $found, 'minutes' => $found->minutes_per_day, 'days' => $found->days_off];
                $days = array_values(array_unique([...$before['days'], ...$line->daysOff]));
                if (\count($days) > self::MOST_DAYS) {
                    $results[] = CapacityResult::refused(
                        $line,
                        "{$found->user->name} would be away on more than " . self::MOST_DAYS . ' days.',
                    );

                    continue;
                }
                $changes[$found->id] = ['member' => $found, 'minutes' => $line->minutes ?? $before['minutes'], 'days' => $days];
                $results[] = new CapacityResult($line->number, $line->text, $found->user_id, null);
            }
            foreach ($changes as $change) {
                $this->calendar->person(
                    $change['member'],
                    $change['minutes'],
                    $change['days'],
                    Seen::of(SetupState::time($change['member'])),
                );
            }

            return $results;
        });
    }

    /**
     * @param  Collection<int, Membership>  $members
     *
     * @return Membership|string the person that the line means, or why it means none
     */
    private static function found(Collection $members, CapacityLine $line): Membership|string
    {
        if (null !== $line->problem) {
            return $line->problem;
        }
        $said = Str::lower($line->person);
        $found = $members->filter(
            static fn(Membership $m): bool => Str::lower($m->user->email) === $said || Str::lower($m->user->name) === $said,
        );

        return match ($found->count()) {
            1 => $found->firstOrFail(),
            0 => "Nobody in this project is called {$line->person} or has this mail address.",
            default => "Several people here are called {$line->person}: write the mail address.",
        };
    }
}
