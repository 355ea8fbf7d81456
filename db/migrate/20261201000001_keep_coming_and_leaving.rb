# Who comes and leaves again is there from then to then, and maybe once more: stretches instead of one moment.
class KeepComingAndLeaving < ActiveRecord::Migration[7.2]
  def up
    add_column :attendances, :spans, :json
    execute <<~SQL
      update attendances set spans = case
        when state = 'left' then json_array(json_array(null, #{moment("coalesce(happened_at, updated_at)")}))
        when state in ('late', 'on_call') and happened_at is not null
          then json_array(json_array(#{moment("happened_at")}, null))
        when state in ('present', 'on_call', 'late') then json_array(json_array(null, null))
        else json_array() end
    SQL
    change_column_null :attendances, :spans, false
    remove_column :attendances, :happened_at
  end

  def down
    add_column :attendances, :happened_at, :datetime
    execute <<~SQL
      update attendances set happened_at = str_to_date(
        json_value(spans, if(state = 'left', '$[last][1]', '$[last][0]')), '%Y-%m-%dT%H:%i:%sZ'
      )
    SQL
    remove_column :attendances, :spans
  end

  private

  def moment(column) = "date_format(#{column}, '%Y-%m-%dT%H:%i:%sZ')"
end
