<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use Illuminate\Contracts\Validation\ValidationRule;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use OpenApi\Attributes as OA;

/**
 * A filter on cases as a request brings it. A name that is no filter is refused: left out, it would let an act meet more
 * cases than were meant.
 */
#[
    OA\Schema(
        description: 'Which cases are meant; values beside one another are separated by commas. field.<id>: the value of a custom field.',
        required: [],
        type: 'object',
        properties: [
            new OA\Property(property: 'q', type: 'string', description: CaseFilter::PARAMETERS['q']),
            new OA\Property(property: 'folder', type: 'string', description: CaseFilter::PARAMETERS['folder']),
            new OA\Property(property: 'deep', type: 'string', description: CaseFilter::PARAMETERS['deep']),
            new OA\Property(property: 'state', type: 'string', description: CaseFilter::PARAMETERS['state']),
            new OA\Property(property: 'type', type: 'string', description: CaseFilter::PARAMETERS['type']),
            new OA\Property(property: 'priority', type: 'string', description: CaseFilter::PARAMETERS['priority']),
            new OA\Property(property: 'owner', type: 'string', description: CaseFilter::PARAMETERS['owner']),
            new OA\Property(property: 'label', type: 'string', description: CaseFilter::PARAMETERS['label']),
            new OA\Property(property: 'automated', type: 'string', description: CaseFilter::PARAMETERS['automated']),
            new OA\Property(property: 'template', type: 'string', description: CaseFilter::PARAMETERS['template']),
            new OA\Property(property: 'estimate', type: 'string', description: CaseFilter::PARAMETERS['estimate']),
            new OA\Property(property: 'table', type: 'string', description: CaseFilter::PARAMETERS['table']),
            new OA\Property(property: 'routine', type: 'string', description: CaseFilter::PARAMETERS['routine']),
            new OA\Property(property: 'requirement', type: 'string', description: CaseFilter::PARAMETERS['requirement']),
            new OA\Property(property: 'suite', type: 'string', description: CaseFilter::PARAMETERS['suite']),
            new OA\Property(property: 'walked', type: 'string', description: CaseFilter::PARAMETERS['walked']),
            new OA\Property(property: 'changed', type: 'string', description: CaseFilter::PARAMETERS['changed']),
            new OA\Property(property: 'author_asked', type: 'string', description: CaseFilter::PARAMETERS['author_asked']),
            new OA\Property(property: 'errors', type: 'string', description: CaseFilter::PARAMETERS['errors']),
            new OA\Property(property: 'bin', type: 'string', description: CaseFilter::PARAMETERS['bin']),
            new OA\Property(property: 'ids', type: 'string', description: CaseFilter::PARAMETERS['ids']),
        ],
        additionalProperties: new OA\AdditionalProperties(type: 'string'),
    ),
]
final readonly class CaseFilterFields implements ValidationRule
{
    /**
     * @param  list<string>  $beside what else may stand there
     */
    private function __construct(private array $beside) {}

    /**
     * @param  string  $at     the field of the request
     * @param  'required'|'present'|'nullable'  $presence present: an empty one means all cases
     * @param  int  $most   characters of a value
     * @param  list<string>  $beside what else may stand there, such as how a view is sorted
     *
     * @return array<string, list<mixed>> the rules of a request
     */
    public static function rules(string $at, string $presence = 'nullable', int $most = 200_000, array $beside = []): array
    {
        return [
            $at => [$presence, 'array', new self($beside)],
            "{$at}.*" => ['nullable', 'string', "max:{$most}"],
        ];
    }

    public function validate(string $attribute, mixed $value, \Closure $fail): void
    {
        foreach (array_keys((array) $value) as $name) {
            if (!CaseFilter::isKnown((string) $name) && !\in_array($name, $this->beside, true)) {
                $fail(\sprintf('There is no filter called “%s”.', mb_strimwidth((string) $name, 0, 40, '…')));
            }
        }
    }
}
