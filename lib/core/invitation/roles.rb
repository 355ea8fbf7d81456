module Core
  module Invitation
    # How somebody is asked: they must come, may come if free, or are told for information.
    module Roles
      ALL = %i[required optional informed].freeze

      module_function

      # One role for each person: what they are named with themselves, else the weightiest of their groups.
      # @param by_group, named [Array<Array(String, Symbol)>] person and role
      # @return [Hash{String => Symbol}]
      def settle(by_group, named)
        weightiest = by_group.group_by(&:first).transform_values { |rows| rows.map(&:last).min_by { ALL.index(_1) } }
        weightiest.merge(named.to_h)
      end

      # In the order people are listed: by role, then by name.
      # @yieldreturn [Array(String, String)] role and name of one
      def sort(all)
        all.sort_by do |one|
          role, name = yield one
          [ALL.index(role.to_sym), name]
        end
      end
    end
  end
end
