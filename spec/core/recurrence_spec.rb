# Sources: RFC 5545 3.8.5.3 and 3.3.10, and cases on which independent libraries agree; each case
# names its own in `source` and `confirmed_by`.
RSpec.describe Core::Recurrence do
  too_often = /SECONDLY|MINUTELY|HOURLY/i

  def wall_or_instant(text) = text.end_with?("Z") ? Time.iso8601(text) : wall(text)

  def wall(text) = Core::WallTime.parse(text.include?("T") ? text : "#{text}T00:00:00")

  def expander(vector)
    zone = Core::Zone[vector["tzid"] || "UTC"]
    rule = vector["rule"] && Core::Recurrence::Rule.parse(vector["rule"], form: vector["form"].to_sym)
    Core::Recurrence::Expander.new(rule: rule, start: wall(vector["dtstart_local"]), zone: zone,
      added: (vector["rdates"] || []).map { |text| wall_or_instant(text) },
      skipped: (vector["exdates"] || []).map { |text| wall_or_instant(text) })
  end

  vectors = reference("recurrence")
  vectors.reject { |vector| vector["rule"]&.match?(too_often) }.each do |vector|
    it "#{vector["id"]}: #{vector["rule"] || "dates only"} from #{vector["dtstart_local"]}" do
      subject = expander(vector)
      expected = vector["expect_utc"] || vector["expect_dates"].map { |date| "#{date}T00:00:00Z" }
      expect(subject.first(expected.size).map(&:iso8601)).to eq expected
      expect(subject.count).to eq vector["count_total"]
    end
  end

  vectors.select { |vector| vector["rule"]&.match?(too_often) }.each do |vector|
    it "#{vector["id"]}: refuses #{vector["rule"]} by name" do
      expect { expander(vector) }.to raise_error(Core::Invalid) { |error| expect(error.code).to eq "too-often" }
    end
  end

  reference("recurrence_invalid").each do |vector|
    name = "#{vector["id"]}: #{vector["rule"].inspect} (#{vector["reason"]})"
    if vector["valid"] && !vector["rule"].match?(too_often)
      it("accepts #{name}") { expect(expander(vector).first(1).size).to eq 1 }
    else
      it "refuses #{name}" do
        expect { expander(vector) }.to raise_error(Core::Invalid, /\S+/)
      end
    end
  end
end
