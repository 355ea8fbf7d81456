module Views
  # What whoever sets Left Over up has still to do, in the order of the work.
  class FirstSteps < Base
    # Asked at each look at the Desk, so in one query.
    DONE = <<~SQL.freeze
      select exists (select 1 from calendars where person_id = :me),
        exists (select 1 from people where not guest and id <> :me),
        exists (select 1 from places where removed_at is null),
        exists (select 1 from series), exists (select 1 from sendings)
    SQL

    # @param me [Records::Person]
    # @return [Array<Hash>, nil] each step and whether it is done; nil when all are, or they are not this person's to
    #   take
    def show(me)
      return unless me.admin

      calendar, people, place, series, invitation = Records::Base.rows(DONE, me: me.id).first.map { |one| one == 1 }
      steps = {hours: !me.working_hours.nil?, calendar:, people:, place:, series:, invitation:}
      steps.map { |step, done| {step: step, done: done} } unless steps.values.all?
    end
  end
end
