module UseCases
  # Who is in a series: people one by one, groups as a whole, and guests by address.
  class SeriesMembers < Base
    # Keeper and chair must come unless said otherwise. A person named on their own keeps that role, whatever groups
    # say.
    # @param members [Array<Hash>] person_id and role; groups [Array<Hash>] group_id and role; guests [Array<Hash>] id,
    #   name, email and role
    # @return [Boolean] whether people joined, left or changed role. Inside a transaction.
    def set(series, members, groups: nil, guests: [])
      named = {series.keeper_id => "required", series.chair_id => "required"}
      members.each { |member| named[member[:person_id]] = member[:role].to_s }
      guests.each { |guest| named[guest_id(guest, series)] = guest[:role].to_s }
      refuse_unknown(named.keys)
      set_groups(series, groups) if groups
      apply(series, named)
    end

    # After a group has changed: those who joined it get the coming meetings, those who left are taken off.
    def follow_group(group_id)
      above = Loading::Groups.tree.above(group_id)
      Records::Series.where(id: Records::SeriesGroup.where(group_id: above).select(:series_id)).find_each do |series|
        apply(series, series.members.where(via_group_id: nil).pluck(:person_id, :role).to_h)
      end
    end

    # Whoever is taken off gives back the seats they had signed up for. Inside a transaction.
    # @param member [Records::SeriesMember]
    def take_off(series, member)
      member.destroy!
      Records::Deputy.where(series_id: series.id, person_id: member.person_id).delete_all
      Records::LinkSerial.renew(series.id, member.person_id)
      signed_up =
        Records::Answer
          .where(
            person_id: member.person_id, answer: "accepted",
            meeting_id: series.meetings.where("starts_at > ?", now).select(:id)
          )
          .includes(:meeting)
          .to_a
      signed_up
        .select { |given| given.meeting.options.sign_up }
        .each { |given| SignUps.new(by: by, clock: @clock).changing(given.meeting) { given.destroy! } }
    end

    private

    def apply(series, named)
      wish = named.transform_values { |role| [role, nil] }
      Records::SeriesGroup.where(series_id: series.id).each do |group|
        Loading::Groups.people_of(group.group_id).each { |id| wish[id] ||= [group.role, group.group_id] }
      end
      standing = series.members.reload.to_h { |member| [member.person_id, member] }
      changed = standing.keys.to_set != wish.keys.to_set
      (standing.keys - wish.keys).each { |id| take_off(series, standing[id]) }
      wish.each do |person_id, (role, via)|
        member = standing[person_id] || series.members.new(person_id: person_id)
        changed ||= member.role != role
        member.update!(role: role, via_group_id: via)
      end
      changed
    end

    def set_groups(series, groups)
      Records::SeriesGroup.where(series_id: series.id).delete_all
      groups.each do |group|
        unless Records::Group.exists?(id: group[:group_id])
          raise Core::Invalid.new("A group chosen is not here any more.", pointer: "/groups")
        end

        Records::SeriesGroup.create!(series_id: series.id, group_id: group[:group_id], role: group[:role].to_s)
      end
    end

    # Whoever has that address already is asked as who they are.
    def guest_id(guest, series)
      address = Core::MailAddress.read!(guest[:email], pointer: "/guests")
      known = Records::Person.where(email: address).pick(:id)
      return known if known
      raise key_taken if Records::Person.exists?(id: guest[:id])

      Guests.new(by: by, clock: @clock).by_address(
        **guest.slice(:id, :name, :email), time_zone: guest[:time_zone] || series.time_zone,
        pointers: {name: "/guests", email: "/guests"}
      ).id
    end

    def refuse_unknown(ids)
      unless Records::Person.where(id: ids).count == ids.uniq.size
        raise Core::Invalid.new("Somebody chosen is not among the people here any more.", pointer: "/members")
      end
    end
  end
end
