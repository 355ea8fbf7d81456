module Loading
  # What all mails of a sending are made of besides what is told: who keeps the series, how one answers, the agenda and
  # papers that go along, what each had answered. It is kept with the sending as it was then, so that a mail that is
  # composed again is the same, whatever has changed meanwhile. What may differ, and is wanted to: a paper that was
  # removed since goes along no more, and links are those that are worth something when the mail goes.
  class MailFrame < Core::Value.of(
    :keeper, :keeper_email, :mark, :options, :records, :agenda, :papers, :first_start, :run_answers, :answers, :alarms
  )
    class << self
      # As it is now.
      # @param series [Records::Series] with keeper, members and their people
      # @param papers [NextPapers]
      def now(series, papers, now:)
        people = series.members.map(&:person)
        new(
          keeper: series.keeper.name, keeper_email: series.keeper.email, mark: series.mark,
          options: series.options.to_h, records: series.door_records, agenda: papers.agenda, papers: papers.papers,
          first_start: first_start(series, now), run_answers: run_answers(series), answers: answers(series, now),
          alarms: people.to_h { |person| [person.id, alarm_min(series, person)] }
        )
      end

      # @param plain [Hash] as `to_plain` gave it, once it was JSON
      def of(plain)
        known = plain.transform_keys(&:to_sym)
        new(
          **known, options: known[:options].transform_keys(&:to_sym),
          agenda: known[:agenda] && deep(known[:agenda]), papers: known[:papers].map { |paper| deep(paper) },
          first_start: known[:first_start] && Time.iso8601(known[:first_start])
        )
      end

      # As long before as they want to be reminded themselves, else as the series has it, else as is usual.
      def alarm_min(series, person)
        [person.remind_min, series.remind_min].compact.find(&:positive?) || Core::Invitation::Request::ALARM_MIN
      end

      private

      def deep(plain) = JSON.parse(JSON.generate(plain), symbolize_names: true)

      def first_start(series, now) =
        series.meetings.where(state: %w[planned in_session]).where("ends_at > ?", now).minimum(:starts_at)

      def run_answers(series) =
        series.members.to_h { |member| [member.person_id, member.run_answer] }.compact

      # @return [Hash{String => Hash{String => String}}] by person: walls and answers
      def answers(series, now)
        given = Records::Answer.where(meeting_id: series.meetings.coming(now).select(:id)).where.not(answer: "none")
        given.includes(:meeting).group_by(&:person_id).transform_values do |some|
          some.to_h { |one| [one.meeting.original_wall.to_s, one.answer] }.sort.to_h
        end
      end
    end

    def to_plain = to_h.merge(first_start: first_start&.getutc&.iso8601(6))

    def core_options = Core::Invitation::Options.new(**options)

    def run_answer(person_id) = run_answers.fetch(person_id, "none")

    # Answers to single meetings that are not the answer to all.
    # @return [Hash{String => Symbol}]
    def own_answers(person_id)
      answers.fetch(person_id, {}).reject { |_, answer| answer == run_answer(person_id) }.transform_values(&:to_sym)
    end

    def alarm_min(person_id) = alarms.fetch(person_id, Core::Invitation::Request::ALARM_MIN)
  end
end
