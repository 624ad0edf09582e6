<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Labels to add.
 */
#[OA\Schema(required: ['names'], properties: [new OA\Property(property: 'names', type: 'array', items: new OA\Items(type: 'string'))])]
final class LabelsRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'names' => ['required', 'array', 'max:10000'],
            'names.*' => ['string', 'max:1000'],
        ];
    }
}
