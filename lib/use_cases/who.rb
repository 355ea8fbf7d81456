module UseCases
  # People and groups as one list of people with roles: groups expand to their members, those in groups of theirs too.
  class Who
    # @param people [Array<Hash>] person_id and role
    # @param groups [Array<Hash>] group_id and role; a person named on their own keeps that role
    def initialize(people, groups)
      @people = people
      @groups = groups
    end

    # @return [Hash{String => Symbol}] role by person; required outweighs optional, optional informed
    def roles
      wish = {}
      @groups.each do |group|
        Groups
          .people_of(group[:group_id])
          .each { |id| wish[id] = [wish[id], group[:role].to_sym].compact.min_by { |role| ORDER.index(role) } }
      end
      @people.each { |person| wish[person[:person_id]] = person[:role].to_sym }
      wish.reject { |_, role| role == :informed }
    end

    ORDER = %i[required optional informed].freeze
  end
end
