module UseCases
  # Groups of people; a group may be in a group, but not in itself.
  class Groups < Base
    def add(id:, name:, person_ids: [], group_ids: [])
      once(Records::Group, id) do
        Records::Group.create!(id: id, name: called(name, id))
        set_members(id, person_ids, group_ids)
      end
    end

    def change(id:, version:, name:, person_ids: [], group_ids: [])
      write do
        group = find(Records::Group, id)
        update(group, version, name: called(name, id), updated_at: now)
        set_members(id, person_ids, group_ids)
        SeriesMembers.new(by: by, clock: @clock).follow_group(id)
      end
    end

    def remove(id)
      write do
        group = Records::Group.find_by(id: id) or next
        if Records::SeriesGroup.exists?(group_id: id)
          raise Core::Conflict.new("This group is asked to a series. Take it off there first.", code: "in-use")
        end

        Records::GroupMember.where(member_group_id: id).delete_all
        group.destroy!
      end
    end

    private

    def called(name, id)
      name = Core::Title.read(name, pointer: "/name", missing: "Give the group a name.")
      if Records::Group.where(name: name).where.not(id: id).exists?
        raise Core::Invalid.new("There is a group “#{name}” already.", pointer: "/name", code: "taken")
      end

      name
    end

    def set_members(id, person_ids, group_ids)
      refuse_unknown(Records::Person, person_ids, "/personIds")
      refuse_unknown(Records::Group, group_ids, "/groupIds")
      Records::GroupMember.where(group_id: id).delete_all
      person_ids.uniq.each { |person_id| Records::GroupMember.create!(group_id: id, person_id: person_id) }
      group_ids.uniq.each { |inner| Records::GroupMember.create!(group_id: id, member_group_id: inner) }
      circle = group_ids.find { |inner| Loading::Groups.tree.below(inner).include?(id) } or return
      raise Core::Invalid.new(
        "“#{Records::Group.find(circle).name}” holds this group already, so this group cannot hold it.",
        pointer: "/groupIds"
      )
    end

    def refuse_unknown(records, ids, pointer)
      return if records.where(id: ids).count == ids.uniq.size

      raise Core::Invalid.new("Something chosen is not here any more. Choose again.", pointer: pointer)
    end
  end
end
