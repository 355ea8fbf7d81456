module Views
  # What whoever sets Left Over up has still to do, in the order of the work.
  class FirstSteps < Base
    # @return [Array<Hash>, nil] each step and whether it is done; nil when all are, or they are not this person's to
    #   take
    def show
      me = find(Records::Person, by)
      return unless me.admin

      steps = {
        hours: !me.working_hours.nil?, calendar: Records::Calendar.exists?(person_id: by),
        people: Records::Person.where(guest: false).where.not(id: by).exists?, place: Records::Place.here.exists?,
        series: Records::Series.exists?, invitation: Records::Sending.exists?
      }
      steps.map { |step, done| {step: step, done: done} } unless steps.values.all?
    end
  end
end
