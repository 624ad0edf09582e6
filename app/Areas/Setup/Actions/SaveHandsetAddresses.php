<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Setup\Queries\SetupState;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Evidence\HandsetAddress;

/**
 * Says which applications under test the handset of a project may show.
 */
final readonly class SaveHandsetAddresses
{
    public function __construct(private PublishChange $publish) {}

    /**
     * @param  list<array{name: string, address: string}>  $addresses in order
     * @param  ?string  $seen the state that the person saw ({@see Seen})
     *
     * @throws ValidationException by the field of the first address that cannot be framed, or stands there twice
     */
    public function __invoke(Project $project, array $addresses, ?string $seen): void
    {
        Project::query()->lockForUpdate()->findOrFail($project->id);
        $project->refresh();
        Seen::check($seen, SetupState::handset($project), 'the addresses');
        $kept = [];
        foreach ($addresses as $at => $typed) {
            try {
                $one = HandsetAddress::of($typed['name'], $typed['address'], (string) config('app.url'));
            } catch (\DomainException $e) {
                throw ValidationException::withMessages(["addresses.{$at}.address" => $e->getMessage()]);
            }
            if (\in_array(mb_strtolower($one->name), array_map(mb_strtolower(...), array_column($kept, 'name')), true)) {
                throw ValidationException::withMessages(["addresses.{$at}.name" => "Another one is called \"{$one->name}\"."]);
            }
            $kept[] = ['name' => $one->name, 'address' => $one->address];
        }
        $project->update(['handset_addresses' => $kept]);
        ($this->publish)($project->id, 'cycle', $project->id);
    }
}
