module Core
  # Groups of people, which may be in one another. A circle is refused when it is made, and walked once where there is
  # one all the same.
  class GroupTree
    # @param rows [Array<Array(String, String, String)>] group, and the person or the group in it, the other nil
    def initialize(rows)
      @people, @groups = Hash.new { |hash, id| hash[id] = [] }, Hash.new { |hash, id| hash[id] = [] }
      rows.each { |group, person, inner| person ? @people[group] << person : @groups[group] << inner }
    end

    # Everybody in a group, those in groups of its own too. @return [Array<String>] keys of people
    def people_of(group_id) = below(group_id).flat_map { |id| @people[id] }.uniq

    # A group and all groups it is in, which it may not be given as members. @return [Array<String>]
    def above(group_id, seen = [])
      return seen if seen.include?(group_id)

      outer = @groups.select { |_, inner| inner.include?(group_id) }.keys
      outer.reduce(seen + [group_id]) { |found, id| above(id, found) }
    end

    # A group and all groups in it. @return [Array<String>]
    def below(group_id, seen = [])
      return seen if seen.include?(group_id)

      @groups[group_id].reduce(seen + [group_id]) { |found, inner| below(inner, found) }
    end
  end
end
