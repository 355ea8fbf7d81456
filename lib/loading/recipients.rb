require "digest"

module Loading
  # Who is to be told of a series, and of what.
  class Recipients
    # `kind` of Core::Invitation::News, nil where they know; `before`: the content they were told last, `role_before`
    # how they were asked then.
    Recipient = Core::Value.of(:person, :role, :kind, :before, :role_before)
    # Up to so many, everybody sees who else is asked; beyond, each mail names its reader alone.
    MOST_LISTED = 100

    attr_reader :series, :content

    # @param series [Records::Series, nil] when it is loaded already, with keeper, place, members and their people
    # @param before [ToldBefore, nil] when it is read for several series at once
    # @raise [Core::NotFound]; [Core::Conflict] codes "nobody" and "outside"
    def initialize(series_id, now:, series: nil, before: nil)
      @series = series || Records::Series.includes(:keeper, :held_place, members: :person).find_by(id: series_id)
      raise Core::NotFound unless @series
      raise Core::Conflict.new("Nobody is in this series yet.", code: "nobody") if @series.members.empty?
      raise Core::Conflict.new("Somebody else invites to this meeting.", code: "outside") if @series.outside_meeting_id

      @now = now
      @before = before || ToldBefore.new([@series])
      @content = SeriesContent.of(@series, now)
    end

    # Everybody asked, as if to be told anew; whoever keeps the series knows, unless they want mail about it too.
    # @return [Array<Recipient>]
    def everybody
      @everybody ||= @series.members.reject { |member| knows?(member.person) }
        .map { |member| recipient(member.person, member.role.to_sym, :invited) }
    end

    # @return [Array<Recipient>] those who are to be told
    def waiting = @waiting ||= (coming? ? asked : []) + not_asked

    # @return [Array<Records::Person>] known by name alone, who have to be told by word of mouth
    def unreachable
      @series.members.map(&:person).reject(&:reachable?).sort_by(&:name)
    end

    # @return [Array<Recipient>] those who know all that holds
    def told
      ids = waiting.map { |one| one.person.id }
      everybody.reject { |one| ids.include?(one.person.id) }.map { |one| one.with(kind: nil) }
    end

    # Of what they are told and how they are asked.
    def digest(role)
      @digests ||= Hash.new do |known, one|
        known[one] = Digest::SHA256.hexdigest(JSON.generate([@content.matters, one]))
      end
      @digests[role]
    end

    # What has changed since the last sending. @return [Array<Hash>] label, before and after
    def changes
      last = Records::Sending.where(series_id: @series.id).where.not(content: nil).order(:sequence, :sent_at).last
      return [] unless last

      Core::Invitation::Difference.between(Core::Invitation::Content.of(last.content), @content, from: @now).map(&:to_h)
    end

    # @return [Array<Hash>] name, address and role of everybody asked, as each calendar entry lists them
    def attendees
      return [] if @series.members.size > MOST_LISTED

      @series.members.map do |member|
        {"id" => member.person_id, "name" => member.person.name, "address" => member.person.email,
         "role" => member.role}
      end
    end

    private

    def recipient(person, role, kind, before: nil, role_before: nil)
      Recipient.new(person: person, role: role, kind: kind, before: before, role_before: role_before)
    end

    # Whoever is known by name alone is told by word of mouth. What others have booked with them, hosts hear like
    # everybody.
    def knows?(person)
      (person.id == @series.keeper_id && !person.mail_own && !booked?) || !person.reachable?
    end

    def booked? = @before.booked?(@series.id)

    def coming?
      return @coming if defined?(@coming)

      known = @series.meetings.loaded?
      @coming = known ? @series.meetings.any? { |one| one.coming?(@now) } : @series.meetings.coming(@now).exists?
    end

    def nothing_left? = !coming? && (@content.start.nil? || !@content.ended.nil?)

    def asked
      everybody.filter_map do |one|
        telling = tellings[one.person.id]
        kind = Core::Invitation::News.for_asked(telling && last(telling), digest(one.role)) or next
        next one.with(kind: kind) unless kind == :changed
        next if @before.last_mail(telling)&.role == one.role.to_s && only_past?(telling)

        one.with(kind: kind, before: content_of(telling), role_before: @before.last_mail(telling)&.role&.to_sym)
      end
    end

    # The words for when it is may read otherwise though nothing to come is: dates of an earlier rule have passed.
    TIMES = %w[start rule dates off moved ended length_min].freeze

    def only_past?(telling)
      (@only_past ||= {}).fetch(telling.sending_id) do |id|
        before = content_of(telling)
        @only_past[id] = before && before.matters.except(*TIMES) == @content.matters.except(*TIMES) &&
          Core::Invitation::Difference.between(before, @content, from: @now).empty?
      end
    end

    def not_asked
      tellings.values.reject { |telling| knows?(telling.person) }.filter_map do |telling|
        kind = news_of(telling) or next
        recipient(telling.person, :required, kind, before: content_of(telling))
      end
    end

    def news_of(telling)
      Core::Invitation::News.for_told(
        last(telling), digest((@before.last_mail(telling)&.role || "required").to_sym), nothing_left: nothing_left?,
        member: @series.members.any? { |member| member.person_id == telling.person_id }
      )
    end

    def tellings = @tellings ||= @before.tellings(@series.id)

    def last(telling)
      Core::Invitation::News::Last.new(
        asked: telling.kind == "request", kind: @before.last_mail(telling)&.kind&.to_sym, digest: telling.digest
      )
    end

    def content_of(telling) = telling.sending.content && Core::Invitation::Content.of(telling.sending.content)
  end
end
